import { leaveToPurchases, theTime } from '@/services';
import { changeAnswer, forDesk } from '../../../../_http/desk';

/** Leaves what people have twice to what they bought. */
export const POST = (request: Request): Promise<Response> =>
  forDesk(request, 'people', async (trivet, administrator, body) =>
    changeAnswer(await leaveToPurchases(trivet, administrator, body, theTime())),
  );
