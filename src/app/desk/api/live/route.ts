import { putLive, theTime } from '@/services';
import { forDesk, json, problem } from '../../../_http/desk';

/** Puts the draft live, if draft and live are still what the administrator looked at. */
export const POST = (request: Request): Promise<Response> =>
  forDesk(request, 'gates', async (trivet, administrator, body) => {
    const answer = await putLive(trivet, administrator, body, theTime());
    switch (answer.kind) {
      case 'live':
        return json({ revision: answer.revision });
      case 'nothing to do':
        return problem(409, 'The draft and what is live are the same. There is nothing to put live.');
      case 'stale':
        return problem(409, answer.message);
      case 'broken':
        return problem(409, answer.message, { broken: answer.expectations });
      case 'wrong':
        return problem(422, answer.message);
      default:
        return answer satisfies never;
    }
  });
