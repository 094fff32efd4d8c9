import { effectOfDraft, theTime } from '@/services';
import { forDesk, lines } from '../../../_http/desk';

/**
 * Who gains and who loses if the policy in the body went live: lines of JSON, one for each bit of progress and a last one
 * with the answer. Hanging up stops it.
 */
export const POST = (request: Request): Promise<Response> =>
  forDesk(request, 'look', (trivet, administrator, body) =>
    lines(request.signal, (write, signal) =>
      effectOfDraft(trivet, administrator, body, theTime(), {
        onProgress: (done) => write({ kind: 'progress', done }),
        signal,
      }),
    ),
  );
