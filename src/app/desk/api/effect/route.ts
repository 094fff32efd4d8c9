import { effectOfDraft } from '@/services';
import { forDesk, json, problem } from '../../../_http/desk';

/** Who gains and who loses if the policy in the body went live. */
export const POST = (request: Request): Promise<Response> =>
  forDesk(request, (trivet, administrator, body) => {
    const answer = effectOfDraft(trivet, administrator, body, new Date());
    return answer.kind === 'effect'
      ? json(answer.report)
      : problem(422, 'The draft can’t be read.', { problems: answer.problems });
  });
