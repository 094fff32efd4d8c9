import { theTime, walkReport } from '@/services';
import { forDesk, json, problem } from '../../../../_http/desk';

interface Context {
  readonly params: Promise<{ readonly token: string }>;
}

/** What was withheld from an address of a walk, and why. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  forDesk(request, 'look', async (trivet, administrator) => {
    const at = new URL(request.url).searchParams.get('at') ?? '/';
    const report = await walkReport(trivet, administrator, (await params).token, at, theTime());
    return report ? json(report) : problem(404, 'This walk is over. Begin another.');
  });
