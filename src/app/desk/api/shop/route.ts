import { shopAtDesk, theTime } from '@/services';
import { forDesk, json } from '../../../_http/desk';

/** Products with what they are sold for, give and open; vouchers; what people have twice. */
export const GET = (request: Request): Promise<Response> =>
  forDesk(request, 'people', async (trivet, administrator) =>
    json(await shopAtDesk(trivet, administrator, theTime())),
  );
