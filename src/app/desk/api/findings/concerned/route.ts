import { theTime, whomItConcerns } from '@/services';
import { forDesk, json, problem } from '../../../../_http/desk';

/** Whom a finding or a broken expectation of the policy in the body concerns today. */
export const POST = (request: Request): Promise<Response> =>
  forDesk(request, 'look', async (trivet, administrator, body) => {
    const answer = await whomItConcerns(trivet, administrator, body, theTime());
    return 'problems' in answer
      ? problem(422, answer.problems[0]?.message ?? 'That can’t be answered.', { problems: answer.problems })
      : json(answer);
  });
