import { siteAhead, theTime } from '@/services';
import { forDesk, json, problem } from '../../../_http/desk';

/** What will change by itself on the live site: `?days`, and `?person` for one of them. */
export const GET = (request: Request): Promise<Response> =>
  forDesk(request, 'look', async (trivet, administrator) => {
    const { searchParams } = new URL(request.url);
    const asked = { days: searchParams.get('days'), person: searchParams.get('person') };
    const ahead = await siteAhead(trivet, administrator, asked, theTime());
    return ahead ? json(ahead) : problem(404, 'There is no such person any more.');
  });
