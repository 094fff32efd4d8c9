/** The desk's door: guests are sent to sign in and back, members without the right are told so. */
import { type NextRequest, NextResponse } from 'next/server';
import { lookOf } from './app/_http/look';
import { delivery, htmlResponse } from './app/_http/response';
import { SESSION_COOKIE } from './app/_http/session-cookie';
import { administratorOf, frameFor, runningTrivet, visitorOf } from './services';
import { renderAnswer } from './site';

// Data routes answer for themselves, in JSON; what is sent to them is not to be read here first.
export const config = { matcher: ['/desk', '/desk/((?!api/).*)'] };

export async function proxy(request: NextRequest): Promise<Response> {
  const trivet = await runningTrivet();
  const visitor = await visitorOf(trivet, request.cookies.get(SESSION_COOKIE)?.value, new Date());
  const { pathname, search } = request.nextUrl;
  if (administratorOf(visitor)) return NextResponse.next();
  if (!visitor.person) {
    const next = encodeURIComponent(pathname + search);
    return NextResponse.redirect(new URL(`/sign-in?next=${next}`, request.url), 303);
  }
  const reason = 'The desk is for administrators of this site. Sign in as one of them to use it.';
  const answer = {
    kind: 'message',
    frame: frameFor(lookOf(trivet, visitor, request), null),
    reason,
    step: null,
  } as const;
  const rendered = await renderAnswer(answer, delivery(false, false));
  return 'location' in rendered
    ? NextResponse.error()
    : htmlResponse(rendered.html, { status: rendered.status });
}
