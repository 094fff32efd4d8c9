import { revisionAt } from '@/services';
import { forDesk, json, problem } from '../../../../_http/desk';

interface Context {
  readonly params: Promise<{ readonly number: string }>;
}

/** One revision with its gates, and those of the one before. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  forDesk(request, 'look', async (trivet, administrator) => {
    const found = await revisionAt(trivet, administrator, Number((await params).number));
    return found ? json(found) : problem(404, 'There is no such revision.');
  });
