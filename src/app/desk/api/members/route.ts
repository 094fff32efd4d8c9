import { findMembers, memberWithId } from '@/services';
import { forDesk, json } from '../../../_http/desk';

/** Members by a part of their name or mail address, or one by their id. */
export const GET = (request: Request): Promise<Response> =>
  forDesk(request, 'look', async (trivet, administrator) => {
    const query = new URL(request.url).searchParams;
    const id = query.get('id');
    if (id !== null) return json(memberWithId(trivet, administrator, id));
    return json(await findMembers(trivet, administrator, query.get('q') ?? ''));
  });
