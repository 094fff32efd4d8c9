import { takeAreasAway, theTime } from '@/services';
import { areaAnswer, forDesk } from '../../../../_http/desk';

/** Takes areas away; with `look`, only says what goes with them. */
export const POST = (request: Request): Promise<Response> =>
  forDesk(request, 'everything', async (trivet, administrator, body) =>
    areaAnswer(await takeAreasAway(trivet, administrator, body, theTime())),
  );
