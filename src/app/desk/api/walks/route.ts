import { startWalk } from '@/services';
import { forDesk, json, problem } from '../../../_http/desk';

/** Starts a walk as a stand-in, through the draft or what is live. */
export const POST = (request: Request): Promise<Response> =>
  forDesk(request, async (trivet, administrator, body) => {
    const token = await startWalk(trivet, administrator, body, new Date());
    return token === null
      ? problem(422, 'There is no such visitor any more. Choose another.')
      : json({ token });
  });
