import { takeAreaStepBack, theTime } from '@/services';
import { areaAnswer, forDesk } from '../../../../_http/desk';

/** Takes back the latest step over areas, by its id. */
export const POST = (request: Request): Promise<Response> =>
  forDesk(request, 'everything', async (trivet, administrator, body) =>
    areaAnswer(await takeAreaStepBack(trivet, administrator, body, theTime())),
  );
