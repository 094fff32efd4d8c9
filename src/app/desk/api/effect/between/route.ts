import { effectsBetween, theTime } from '@/services';
import { forDesk, json, problem } from '../../../../_http/desk';

// A policy and a few that differ from it.
const LARGEST = 16_000_000;

/** What each of a few changes of a policy would do by itself. */
export const POST = (request: Request): Promise<Response> =>
  forDesk(
    request,
    'look',
    async (trivet, administrator, body) => {
      const answer = await effectsBetween(trivet, administrator, body, theTime());
      return 'problems' in answer
        ? problem(422, answer.problems[0]?.message ?? 'That can’t be compared.', {
            problems: answer.problems,
          })
        : json(answer);
    },
    LARGEST,
  );
