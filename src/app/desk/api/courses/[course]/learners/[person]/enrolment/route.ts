import { endEnrolment, theTime } from '@/services';
import { changeAnswer, forDesk } from '../../../../../../../_http/desk';

interface Context {
  readonly params: Promise<{ readonly course: string; readonly person: string }>;
}

/** Ends an enrolment. */
export const DELETE = (request: Request, { params }: Context): Promise<Response> =>
  forDesk(request, 'learners', async (trivet, administrator, body) => {
    const input = { ...(body as object | null), ...(await params) };
    return changeAnswer(await endEnrolment(trivet, administrator, input, theTime()));
  });
