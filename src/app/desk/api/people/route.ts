import { findPeople, theTime } from '@/services';
import { forDesk, json, problem } from '../../../_http/desk';

/** The people of whom a text and a condition are true, a page of them. */
export const POST = (request: Request): Promise<Response> =>
  forDesk(request, 'look', async (trivet, administrator, body) => {
    const answer = await findPeople(trivet, administrator, body, theTime());
    switch (answer.kind) {
      case 'found':
        return json(answer);
      case 'wrong condition':
        return problem(422, answer.error.message, { error: answer.error });
      case 'wrong':
        return problem(422, answer.message);
      default:
        return answer satisfies never;
    }
  });
