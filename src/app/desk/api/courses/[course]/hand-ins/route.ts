import { handInsWaiting } from '@/services';
import { forDesk, json, problem } from '../../../../../_http/desk';

interface Context {
  readonly params: Promise<{ readonly course: string }>;
}

/** What learners of a course handed in and nobody has looked at yet. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  forDesk(request, 'learners', async (trivet, administrator) => {
    const waiting = await handInsWaiting(trivet, administrator, (await params).course);
    return waiting ? json(waiting) : problem(404, 'There is no such course any more.');
  });
