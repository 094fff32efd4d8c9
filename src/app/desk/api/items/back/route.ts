import { bringBack } from '@/services';
import { forDesk, json, problem } from '../../../../_http/desk';

/** Brings back what was taken away. */
export const POST = (request: Request): Promise<Response> =>
  forDesk(request, 'content', async (trivet, administrator, body) => {
    const answer = await bringBack(trivet, administrator, body);
    return answer.kind === 'done' ? json(answer) : problem(422, answer.message);
  });
