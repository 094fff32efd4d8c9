import { invitePeople, theTime } from '@/services';
import { forDesk, json, problem } from '../../../../_http/desk';

/** Invites people by mail; with `?preview`, only says whom. */
export const POST = (request: Request): Promise<Response> =>
  forDesk(request, 'people', async (trivet, administrator, body) => {
    const preview = new URL(request.url).searchParams.has('preview');
    const answer = await invitePeople(trivet, administrator, body, preview, theTime());
    return answer.kind === 'wrong' ? problem(422, answer.message) : json(answer);
  });
