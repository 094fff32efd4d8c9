import { takeBackIn, theTime } from '@/services';
import { forDesk, json, problem } from '../../../../_http/desk';

/** Takes back what was taken in, by its id. */
export const POST = (request: Request): Promise<Response> =>
  forDesk(request, 'everything', async (trivet, administrator, body) => {
    const answer = await takeBackIn(trivet, administrator, body, theTime());
    return answer.kind === 'done' ? json(answer) : problem(422, answer.message);
  });
