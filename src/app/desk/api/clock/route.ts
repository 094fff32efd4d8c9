import { moveClock, runningTill, theTime } from '@/services';
import { forDesk, json, problem } from '../../../_http/desk';

/** Moves the clock of a demo on. */
export const POST = (request: Request): Promise<Response> =>
  forDesk(request, 'everything', async (trivet, administrator, body) => {
    const answer = await moveClock(trivet, runningTill(), administrator, body, theTime());
    return answer.kind === 'wrong' ? problem(422, answer.message) : json(answer);
  });
