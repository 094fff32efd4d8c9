/** Pages and posts, and nothing where there is none. */
import type { ItemId } from '@/core';
import { addressedAt, elsewhere, nowhere, type PageAnswer, viewPage, viewPageInTime } from '@/services';
import type { Answer } from '../_http/answer';
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
  const answer = item ? elsewhere(ask.context, ask.path) : null;
  return item && !answer
    ? madeDocument(ask, documentOf(item.id), (view) => viewPageInTime(view, ask.path))
    : given(ask, answer ?? viewPage(ask.context, ask.path));
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
