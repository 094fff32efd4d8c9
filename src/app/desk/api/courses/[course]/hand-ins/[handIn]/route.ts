import { judge, theTime } from '@/services';
import { changeAnswer, forDesk } from '../../../../../../_http/desk';

interface Context {
  readonly params: Promise<{ readonly course: string; readonly handIn: string }>;
}

/** Accepts what was handed in, or gives it back. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  forDesk(request, 'learners', async (trivet, administrator, body) => {
    const input = { ...(body as object), ...(await params) };
    return changeAnswer(await judge(trivet, administrator, input, theTime()));
  });
