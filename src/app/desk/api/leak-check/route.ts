import { checkLeaks, theTime } from '@/services';
import { siteResponse } from '../../../_doors';
import { forDesk, json, problem } from '../../../_http/desk';
import { SESSION_COOKIE } from '../../../_http/session-cookie';

/** Tries every door of a marked copy of the site: as the board's visitors, or as everybody. */
export const POST = (request: Request): Promise<Response> =>
  forDesk(request, 'look', async (trivet, administrator, body) => {
    const answer = await checkLeaks(trivet, administrator, body, {
      now: theTime(),
      cookieName: SESSION_COOKIE,
      knock: siteResponse,
      signal: request.signal,
    });
    return answer === null
      ? problem(409, 'A check is under way already. Wait until it is done.')
      : json(answer);
  });
