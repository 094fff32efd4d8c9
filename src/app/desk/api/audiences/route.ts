import { audienceReport, theTime } from '@/services';
import { forDesk, json, problem } from '../../../_http/desk';

/** How many are in each audience of the policy in the body, and how they overlap. */
export const POST = (request: Request): Promise<Response> =>
  forDesk(request, 'look', async (trivet, administrator, body) => {
    const report = await audienceReport(trivet, administrator, body, theTime());
    return 'problems' in report
      ? problem(422, report.problems[0]?.message ?? 'The draft can’t be read.', { problems: report.problems })
      : json(report);
  });
