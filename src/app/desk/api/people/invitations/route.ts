import { theTime, unanswered } from '@/services';
import { forDesk, json } from '../../../../_http/desk';

/** Those who were invited and did not answer yet. */
export const GET = (request: Request): Promise<Response> =>
  forDesk(request, 'people', async (trivet, administrator) =>
    json(await unanswered(trivet, administrator, theTime())),
  );
