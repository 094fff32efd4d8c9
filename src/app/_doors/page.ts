/** Pages and posts, and nothing where there is none. */
import type { Addressed, ItemId } from '@/core';
import {
  addressedAt,
  completeActivity,
  elsewhere,
  isDoneByOpening,
  nowhere,
  type PageAnswer,
  viewPage,
  viewPageInTime,
} from '@/services';
import type { Answer } from '../_http/answer';
import { contextOf } from '../_http/context';
import { visitorIn } from '../_http/request';
import { PRIVATE } from '../_http/response';
import {
  type DocumentOf,
  drawn,
  givenElsewhere,
  keptDocument,
  keptElsewhere,
  madeDocument,
} from './documents';
import type { Ask, Asking } from './door';

/** What there is to read at an address for this visitor, if it was made before or needs no making; null where it does. */
export function keptPage(ask: Asking): Answer | null {
  const item = addressedAt(ask.context, ask.path);
  if (item && isDoneByOpening(ask.trivet.state, ask.visitor, item)) return null;
  const kept = item && keptDocument(ask, documentOf(item.id));
  if (kept) return kept;
  const answer = elsewhere(ask.context, ask.path);
  return answer && keptElsewhere(ask, answer);
}

export async function page(ask: Ask): Promise<Answer> {
  const { method } = ask.request;
  // The same at every address, so that it does not tell at which there is a page.
  if (method !== 'GET' && method !== 'HEAD') return notTaken('GET, HEAD');
  const item = addressedAt(ask.context, ask.path);
  if (item && (await isNowDone(ask, item))) return page(await askedAnew(ask));
  const answer = item ? elsewhere(ask.context, ask.path) : null;
  return item && !answer
    ? madeDocument(ask, documentOf(item.id), (view) => viewPageInTime(view, ask.path))
    : given(ask, answer ?? viewPage(ask.context, ask.path));
}

/** Whether somebody was not done with an activity and is now, for having opened it: as a page, and on the site itself. */
async function isNowDone(
  { trivet, visitor, request, context, delivery, now }: Ask,
  item: Addressed,
): Promise<boolean> {
  if (request.method !== 'GET' || delivery.walk || !isDoneByOpening(trivet.state, visitor, item))
    return false;
  // What a browser reads ahead, or asks for as a picture, nobody has opened.
  const { headers } = request;
  const asked = headers.get('sec-fetch-dest');
  if ((asked !== null && asked !== 'document') || headers.get('sec-purpose') !== null) return false;
  return (await completeActivity(trivet, visitor, item.id, context.request, now)) === 'done';
}

/** The same request by whoever its visitor is by now. */
async function askedAnew(ask: Ask): Promise<Ask> {
  const { trivet, request, now } = ask;
  const visitor = await visitorIn(trivet, request, now);
  return { ...ask, visitor, context: contextOf(trivet, visitor, request, now) };
}

const documentOf = (item: ItemId): DocumentOf => ({ part: 'items', name: item });

/** What is given in place of something else than a page. */
export const given = (ask: Ask, answer: PageAnswer): Promise<Answer> =>
  answer.kind === 'page' || answer.kind === 'teaser' ? drawn(ask, answer) : givenElsewhere(ask, answer);

/** An address does not take a method (RFC 9110 §15.5.6). Apps are told in their own way. */
export function notTaken(allow: string, app = false): Answer {
  const title = 'This address does not take that.';
  return {
    status: 405,
    headers: {
      Allow: allow,
      'Cache-Control': PRIVATE,
      'Content-Type': app ? 'application/problem+json' : 'text/plain; charset=utf-8',
    },
    body: app ? JSON.stringify({ title, status: 405 }) : title,
  };
}

/** The same as at an address that was never there. */
export const missing = (ask: Ask): Promise<Answer> => givenElsewhere(ask, nowhere(ask.context, ask.path));
