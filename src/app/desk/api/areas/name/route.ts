import { renameArea, theTime } from '@/services';
import { areaAnswer, forDesk } from '../../../../_http/desk';

/** Calls an area something else. */
export const POST = (request: Request): Promise<Response> =>
  forDesk(request, 'everything', async (trivet, administrator, body) =>
    areaAnswer(await renameArea(trivet, administrator, body, theTime())),
  );
