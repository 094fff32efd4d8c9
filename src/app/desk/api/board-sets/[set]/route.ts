import { dropBoardSet } from '@/services';
import { forDesk, json } from '../../../../_http/desk';

interface Context {
  readonly params: Promise<{ readonly set: string }>;
}

/** Drops a set of stand-ins. */
export const DELETE = (request: Request, { params }: Context): Promise<Response> =>
  forDesk(request, 'look', async (trivet, administrator) => {
    await dropBoardSet(trivet, administrator, (await params).set);
    return json({});
  });
