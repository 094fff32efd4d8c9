import { pastChanges } from '@/services';
import { forDesk, json } from '../../../_http/desk';

/** Changes of people and names, newest first; of one `person`, and before a moment, if these are given. */
export const GET = (request: Request): Promise<Response> =>
  forDesk(request, 'look', async (trivet, administrator) => {
    const query = new URL(request.url).searchParams;
    const asked = { person: query.get('person'), before: query.get('before') };
    return json(await pastChanges(trivet, administrator, asked));
  });
