import { startWalk, theTime } from '@/services';
import { forDesk, json, problem } from '../../../_http/desk';

/** Starts a walk as a stand-in, through the draft or what is live. */
export const POST = (request: Request): Promise<Response> =>
  forDesk(request, 'look', async (trivet, administrator, body) => {
    const answer = await startWalk(trivet, administrator, body, theTime());
    return answer.kind === 'wrong' ? problem(422, answer.message) : json({ token: answer.token });
  });
