import { latestMail } from '@/services';
import { forDesk, json } from '../../../_http/desk';

/** Mail that would have been sent. */
export const GET = (request: Request): Promise<Response> =>
  forDesk(request, 'everything', async (trivet, administrator) =>
    json(await latestMail(trivet, administrator)),
  );
