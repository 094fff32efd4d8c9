import { siteOverview, theTime } from '@/services';
import { forDesk, json } from '../../../_http/desk';

/** What is being written, what changed last, and what is wrong with the site. */
export const GET = (request: Request): Promise<Response> =>
  forDesk(request, 'look', async (trivet, administrator) =>
    json(await siteOverview(trivet, administrator, theTime())),
  );
