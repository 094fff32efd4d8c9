import { handOverArea, theTime } from '@/services';
import { areaAnswer, forDesk } from '../../../../_http/desk';

/** Gives an area to other people; with `look`, only says who comes and who goes. */
export const POST = (request: Request): Promise<Response> =>
  forDesk(request, 'everything', async (trivet, administrator, body) =>
    areaAnswer(await handOverArea(trivet, administrator, body, theTime())),
  );
