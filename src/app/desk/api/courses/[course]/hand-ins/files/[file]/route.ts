import { handedFileFor } from '@/services';
import { handedFile } from '../../../../../../../_doors/hand-in';
import { toResponse } from '../../../../../../../_http/answer';
import { forDesk, problem } from '../../../../../../../_http/desk';

interface Context {
  readonly params: Promise<{ readonly course: string; readonly file: string }>;
}

/** A file that was handed in. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  forDesk(request, 'learners', async (trivet, administrator) => {
    const { course, file } = await params;
    const found = await handedFileFor(trivet, administrator, course, file);
    return found ? toResponse(handedFile(found)) : problem(404, 'There is no such file any more.');
  });
