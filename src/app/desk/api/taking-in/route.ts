import { latestTakings, takeIn, theTime } from '@/services';
import { forDesk, json, lines } from '../../../_http/desk';

/** What was taken in lately and can be taken back. */
export const GET = (request: Request): Promise<Response> =>
  forDesk(request, 'everything', async (trivet, administrator) =>
    json(await latestTakings(trivet, administrator)),
  );

/**
 * Looks at what would come in, or takes it in with the `basis` of a look: lines of JSON, one for each bit of progress and a last
 * one with what it came to. Hanging up stops it.
 */
export const POST = (request: Request): Promise<Response> =>
  forDesk(request, 'everything', (trivet, administrator, body) =>
    lines(request.signal, (write, signal) =>
      takeIn(trivet, administrator, body, theTime(), {
        onProgress: (progress) => write({ kind: 'progress', ...progress }),
        signal,
      }),
    ),
  );
