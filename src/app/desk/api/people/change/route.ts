import { changePeople, theTime } from '@/services';
import { changeAnswer, forDesk } from '../../../../_http/desk';

/** Changes many people at once; with `?preview`, only says what that would do. */
export const POST = (request: Request): Promise<Response> =>
  forDesk(request, 'people', async (trivet, administrator, body) => {
    const preview = new URL(request.url).searchParams.has('preview');
    return changeAnswer(await changePeople(trivet, administrator, body, preview, theTime()));
  });
