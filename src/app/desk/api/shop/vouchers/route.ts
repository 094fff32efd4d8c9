import { saveVoucher } from '@/services';
import { forDesk, json, problem } from '../../../../_http/desk';

/** Keeps a voucher. */
export const PUT = (request: Request): Promise<Response> =>
  forDesk(request, 'everything', async (trivet, administrator, body) => {
    const answer = await saveVoucher(trivet, administrator, body);
    return answer.kind === 'wrong' ? problem(422, answer.message) : json(answer);
  });
