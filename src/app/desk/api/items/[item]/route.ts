import { readWriting } from '@/services';
import { forDesk, json, problem } from '../../../../_http/desk';

interface Context {
  readonly params: Promise<{ readonly item: string }>;
}

/** A page or post to be written. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  forDesk(request, 'look', async (trivet, administrator) => {
    const writing = await readWriting(trivet, administrator, (await params).item);
    return writing ? json(writing) : problem(404, 'There is no such page or post any more.');
  });
