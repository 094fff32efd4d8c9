import { foundToday, theTime } from '@/services';
import { forDesk, json, problem } from '../../../../_http/desk';

/** What is found of the policy in the body with the members there are today. */
export const POST = (request: Request): Promise<Response> =>
  forDesk(request, 'look', async (trivet, administrator, body) => {
    const found = await foundToday(trivet, administrator, body, theTime());
    return 'problems' in found
      ? problem(422, 'The gates can’t be read.', { problems: found.problems })
      : json(found);
  });
