import { editNames, namesReport, theTime } from '@/services';
import { changeAnswer, forDesk, json } from '../../../_http/desk';

/** The names of the site, with how many people have each and where it is used. */
export const GET = (request: Request): Promise<Response> =>
  forDesk(request, 'look', async (trivet, administrator) => json(await namesReport(trivet, administrator)));

/** Changes them; with `?preview`, only says what that would do. */
export const POST = (request: Request): Promise<Response> =>
  forDesk(request, 'people', async (trivet, administrator, body) => {
    const preview = new URL(request.url).searchParams.has('preview');
    return changeAnswer(await editNames(trivet, administrator, body, preview, theTime()));
  });
