import { latestMail, sendFromOutbox, theTime } from '@/services';
import { forDesk, json, problem } from '../../../_http/desk';

/** Letters with what has become of them. */
export const GET = (request: Request): Promise<Response> =>
  forDesk(request, 'everything', async (trivet, administrator) =>
    json(await latestMail(trivet, administrator)),
  );

/** Sends a letter again, or one to whoever asks. */
export const POST = (request: Request): Promise<Response> =>
  forDesk(request, 'everything', async (trivet, administrator, body) => {
    const wrong = await sendFromOutbox(trivet, administrator, body, theTime());
    return wrong === null ? json(await latestMail(trivet, administrator)) : problem(422, wrong);
  });
