/** Pages and posts, and nothing where there is none. */
import { type ListAnswer, nowhere, type PageAnswer, viewPageInTime } from '@/services';
import { renderAnswer } from '@/site';
import { PRIVATE, respond } from '../_http/response';
import type { Ask } from './door';

export async function page(ask: Ask): Promise<Response> {
  const { method } = ask.request;
  // The same at every address, so that it does not tell at which there is a page.
  if (method !== 'GET' && method !== 'HEAD') return notTaken('GET, HEAD');
  const answer = await viewPageInTime(ask.context, ask.path);
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

/** An address does not take a method (RFC 9110 §15.5.6). Apps are told in their own way. */
export function notTaken(allow: string, app = false): Response {
  const title = 'This address does not take that.';
  return new Response(app ? JSON.stringify({ title, status: 405 }) : title, {
    status: 405,
    headers: {
      Allow: allow,
      'Cache-Control': PRIVATE,
      'Content-Type': app ? 'application/problem+json' : 'text/plain; charset=utf-8',
    },
  });
}

/** The same as at an address that was never there. */
export const missing = (ask: Ask): Promise<Response> => given(ask, nowhere(ask.context, ask.path));
