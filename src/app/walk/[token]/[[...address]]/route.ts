/** The site as a stand-in sees it. To anybody but the administrator who walks, there is nothing here. */
import { safeNext } from '@/core';
import { administratorOf, frameFor, signInNote, viewPage, walkOf } from '@/services';
import { renderAnswer, renderPassphrase, renderSignIn } from '@/site';
import { lookOf } from '../../../_http/look';
import { asking } from '../../../_http/request';
import { delivery, htmlResponse, respond } from '../../../_http/response';

export const dynamic = 'force-dynamic';

interface Context {
  readonly params: Promise<{ readonly token: string }>;
}

export async function GET(request: Request, { params }: Context): Promise<Response> {
  const { trivet, visitor } = await asking();
  const { token } = await params;
  const walk = await walkOf(trivet, administratorOf(visitor), token, new Date());
  if (!walk) {
    const nothing = { kind: 'missing', frame: frameFor(lookOf(trivet, visitor, request), null) } as const;
    const rendered = await renderAnswer(nothing, delivery(visitor.person?.desk ?? false, false));
    return respond(request, rendered, false, false);
  }
  const url = new URL(request.url);
  const path = url.pathname.slice(`/walk/${token}`.length) || '/';
  if (path === '/sign-in') {
    const html = await renderSignIn({
      frame: frameFor(walk.look, null),
      note: signInNote(walk.look),
      delivery: delivery(false, true),
      next: safeNext(url.searchParams.get('next')),
      email: '',
      problems: {},
      signedInAs: walk.standIn.kind === 'member' ? walk.standIn.member.name : null,
    });
    return htmlResponse(html, { status: 200, walk: true });
  }
  if (path === '/passphrase') {
    const html = await renderPassphrase({
      frame: frameFor(walk.look, null),
      delivery: delivery(false, true),
      next: safeNext(url.searchParams.get('next')),
      problem: null,
    });
    return htmlResponse(html, { status: 200, walk: true });
  }
  return respond(request, await renderAnswer(viewPage(walk.look, path), delivery(false, true)), true, false);
}
