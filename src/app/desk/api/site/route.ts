import { readDesk, theTime } from '@/services';
import { forDesk, json } from '../../../_http/desk';

/** Everything the desk shows, as it is now. */
export const GET = (request: Request): Promise<Response> =>
  forDesk(request, 'look', async (trivet, administrator) =>
    json(await readDesk(trivet, administrator, theTime())),
  );
