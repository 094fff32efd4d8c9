import { revisionsOf } from '@/services';
import { forDesk, json } from '../../../_http/desk';

/** Revisions of the gates, newest first; `before` continues below a number. */
export const GET = (request: Request): Promise<Response> =>
  forDesk(request, 'look', async (trivet, administrator) => {
    const before = Number(new URL(request.url).searchParams.get('before') ?? Number.NaN);
    return json(await revisionsOf(trivet, administrator, Number.isInteger(before) ? before : null));
  });
