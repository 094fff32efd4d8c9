import { learnerReport, markDone, theTime } from '@/services';
import { changeAnswer, forDesk, json, problem } from '../../../../../../_http/desk';

interface Context {
  readonly params: Promise<{ readonly course: string; readonly person: string }>;
}

/** One learner of a course: what they did, what is closed to them and why. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  forDesk(request, 'learners', async (trivet, administrator) => {
    const day = new URL(request.url).searchParams.get('day');
    const report = await learnerReport(trivet, administrator, { ...(await params), day }, theTime());
    return report ? json(report) : problem(404, 'That is no learner of this course any more.');
  });

/** Marks what they are done with, or takes that back. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  forDesk(request, 'learners', async (trivet, administrator, body) => {
    const input = { ...(body as object), ...(await params) };
    return changeAnswer(await markDone(trivet, administrator, input, theTime()));
  });
