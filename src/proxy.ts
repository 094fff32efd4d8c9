/** The desk's door: guests are sent to sign in and back, members without the right are told so. */

import { type NextRequest, NextResponse } from 'next/server';
import { theTime } from '@/services';
import { toResponse } from './app/_http/answer';
import { contextOf } from './app/_http/context';
import { delivery, htmlAnswer, PERMISSIONS, PRIVATE, strictTransport } from './app/_http/response';
import { SESSION_COOKIE } from './app/_http/session-cookie';
import { administratorOf, frameFor, runningTrivet, visitorOf } from './services';
import { renderAnswer } from './site';

// Data routes answer for themselves, in JSON; what is sent to them is not to be read here first.
export const config = { matcher: ['/desk', '/desk/((?!api/).*)'] };

export async function proxy(request: NextRequest): Promise<Response> {
  const trivet = await runningTrivet();
  const visitor = await visitorOf(trivet, request.cookies.get(SESSION_COOKIE)?.value, theTime());
  const { pathname, search } = request.nextUrl;
  if (administratorOf(visitor)) return desk(request);
  if (!visitor.person) {
    const next = encodeURIComponent(pathname + search);
    const response = NextResponse.redirect(new URL(`/sign-in?next=${next}`, request.url), 303);
    response.headers.set('Cache-Control', PRIVATE);
    return response;
  }
  const reason = 'The desk is for administrators of this site. Sign in as one of them to use it.';
  const answer = {
    kind: 'message',
    title: null,
    frame: frameFor(contextOf(trivet, visitor, request, theTime()), null),
    reason,
    step: null,
  } as const;
  const rendered = await renderAnswer(answer, delivery(false, false));
  return 'location' in rendered
    ? NextResponse.error()
    : toResponse(htmlAnswer(rendered.html, { status: rendered.status }));
}

/**
 * A page of the desk. Its scripts are those that were built with it: the framework writes the number of this one answer next
 * to each of its own, and nothing else runs, whatever a text may hold. Pictures come from here alone.
 */
function desk(request: NextRequest): Response {
  const nonce = Buffer.from(crypto.getRandomValues(new Uint8Array(16))).toString('base64');
  const loose = process.env.NODE_ENV === 'development' ? " 'unsafe-eval'" : '';
  const policy = [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'${loose}`,
    // Positions and sizes are written on elements by what lays them out.
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self' data:",
    "worker-src 'self' blob:",
    "frame-src 'self'",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');
  const headers = new Headers(request.headers);
  // The framework reads it here.
  headers.set('Content-Security-Policy', policy);
  const response = NextResponse.next({ request: { headers } });
  const more = { 'Content-Security-Policy': policy, 'Permissions-Policy': PERMISSIONS, ...strictTransport() };
  for (const [name, value] of Object.entries(more)) response.headers.set(name, value);
  return response;
}
