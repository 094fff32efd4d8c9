import { findMembers } from '@/services';
import { forDesk, json } from '../../../_http/desk';

/** Members by a part of their name or mail address. */
export const GET = (request: Request): Promise<Response> =>
  forDesk(request, (trivet, administrator) =>
    json(findMembers(trivet, administrator, new URL(request.url).searchParams.get('q') ?? '')),
  );
