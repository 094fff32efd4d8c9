import { salesPage, theTime } from '@/services';
import { forDesk, json } from '../../../_http/desk';

/** A page of orders, with what could not be matched and the charts. */
export const POST = (request: Request): Promise<Response> =>
  forDesk(request, 'people', async (trivet, administrator, body) =>
    json(await salesPage(trivet, administrator, body, theTime())),
  );
