import { itemReach, theTime } from '@/services';
import { forDesk, json, problem } from '../../../../../_http/desk';

interface Context {
  readonly params: Promise<{ readonly item: string }>;
}

/** Who of the membership gets an item under the draft, or under what is `live`. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  forDesk(request, 'look', async (trivet, administrator) => {
    const side = new URL(request.url).searchParams.has('live') ? 'live' : 'draft';
    const reach = await itemReach(trivet, administrator, (await params).item, side, theTime());
    return reach ? json(reach) : problem(404, 'There is no such item any more.');
  });
