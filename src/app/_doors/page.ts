/** Pages and posts, and nothing where there is none. */
import { frameFor, type ListAnswer, type PageAnswer, viewPage } from '@/services';
import { renderAnswer } from '@/site';
import { respond } from '../_http/response';
import type { Ask } from './door';

export async function page(ask: Ask): Promise<Response> {
  const { method } = ask.request;
  if (method !== 'GET' && method !== 'HEAD') return missing(ask);
  const answer = viewPage(ask.look, ask.path);
  return given(ask, answer, answer.kind === 'page' && answer.sameForEveryone);
}

/** An answer as a response. What is the same for everyone may be kept. */
export async function given(
  ask: Ask,
  answer: PageAnswer | ListAnswer,
  sameForEveryone = false,
): Promise<Response> {
  const { delivery, request } = ask;
  const same = sameForEveryone && !delivery.desk && !delivery.walk;
  return respond(request, await renderAnswer(answer, delivery), delivery.walk, same);
}

/** The same bytes as for an address that was never there. */
export const missing = (ask: Ask): Promise<Response> =>
  given(ask, { kind: 'missing', frame: frameFor(ask.look, null) });
