import { theTime, whoPasses } from '@/services';
import { forDesk, json, problem } from '../../../_http/desk';

/** How many members pass one gate of the policy in the body. */
export const POST = (request: Request): Promise<Response> =>
  forDesk(request, 'look', async (trivet, administrator, body) => {
    const report = await whoPasses(trivet, administrator, body, theTime());
    return 'problems' in report
      ? problem(422, 'The gate can’t be read.', { problems: report.problems })
      : json(report);
  });
