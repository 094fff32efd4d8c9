import { handbook } from '@/services';
import { forDesk, json } from '../../../_http/desk';

/** The handbook's pages, in order. */
export const GET = (request: Request): Promise<Response> =>
  forDesk(request, 'look', async (trivet, administrator) => json(await handbook(trivet, administrator)));
