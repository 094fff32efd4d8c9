import { previewRemoval } from '@/services';
import { forDesk, json, problem } from '../../../../../_http/desk';

interface Context {
  readonly params: Promise<{ readonly item: string }>;
}

/** What taking it away would mean. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  forDesk(request, 'look', async (trivet, administrator) => {
    const preview = previewRemoval(trivet, administrator, (await params).item);
    return preview ? json(preview) : problem(404, 'That is no longer there.');
  });
