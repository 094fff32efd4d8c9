import { seatsOf } from '@/services';
import { forDesk, json } from '../../../../../_http/desk';

interface Context {
  readonly params: Promise<{ readonly product: string }>;
}

/** Who has which seat of a product. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  forDesk(request, 'people', async (trivet, administrator) =>
    json(await seatsOf(trivet, administrator, (await params).product)),
  );
