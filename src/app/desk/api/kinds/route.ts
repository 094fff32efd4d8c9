import { z } from 'zod';
import { kindsReport, theTime } from '@/services';
import { forDesk, json, problem } from '../../../_http/desk';

const asked = z.object({ policy: z.unknown(), person: z.string().max(100).nullable().catch(null) });

/** The members by kind, under the policy in the body. */
export const POST = (request: Request): Promise<Response> =>
  forDesk(request, 'look', async (trivet, administrator, body) => {
    const parsed = asked.safeParse(body);
    if (!parsed.success) return problem(422, 'Send the policy that the kinds are worked out for.');
    const report = await kindsReport(trivet, administrator, parsed.data, theTime());
    return 'problems' in report
      ? problem(422, 'The gates can’t be read.', { problems: report.problems })
      : json(report);
  });
