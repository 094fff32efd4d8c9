import { listAreas, makeAreas, theTime } from '@/services';
import { forDesk, json, problem } from '../../../_http/desk';

/** The areas there are, and the latest steps that can be taken back. */
export const GET = (request: Request): Promise<Response> =>
  forDesk(request, 'people', async (trivet, administrator) =>
    json(await listAreas(trivet, administrator, theTime())),
  );

/** Makes areas; without a `basis`, only says what that would come to. */
export const POST = (request: Request): Promise<Response> =>
  forDesk(request, 'everything', async (trivet, administrator, body) => {
    const answer = await makeAreas(trivet, administrator, body, theTime());
    switch (answer.kind) {
      case 'report':
      case 'made':
        return json(answer);
      case 'stale':
        return problem(409, answer.message);
      case 'broken':
        return problem(422, answer.message, { expectations: answer.expectations });
      case 'problems':
        return problem(422, answer.problems[0]?.message ?? 'That can’t be made.', {
          problems: answer.problems.slice(0, 200),
        });
      default:
        return answer satisfies never;
    }
  });
