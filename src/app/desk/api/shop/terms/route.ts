import { saveTerms, theTime } from '@/services';
import { forDesk, json, problem } from '../../../../_http/desk';

/** Says what other terms of a product would do. */
export const POST = (request: Request): Promise<Response> => answered(request, true);

/** Saves what a product is sold for and gives. */
export const PUT = (request: Request): Promise<Response> => answered(request, false);

const answered = (request: Request, preview: boolean): Promise<Response> =>
  forDesk(request, 'everything', async (trivet, administrator, body) => {
    const answer = await saveTerms(trivet, administrator, body, preview, theTime());
    if (answer.kind === 'wrong')
      return problem(422, answer.problems[0]?.message ?? 'That can’t be kept.', {
        problems: answer.problems,
      });
    return answer.kind === 'stale'
      ? problem(409, 'Somebody else changed this product meanwhile.', answer)
      : json(answer);
  });
