/** Typing a passphrase: a plain form, and back to where one was. */
import { safeNext } from '@/core';
import { frameFor, GUEST_SESSION_MS, type Trivet, unlock, type Visitor } from '@/services';
import { renderPassphrase } from '@/site';
import { lookOf } from '../_http/look';
import { addressOf, asking, fromThisSite, nextOf, readForm } from '../_http/request';
import { delivery, htmlResponse, seeOther } from '../_http/response';
import { sessionCookie } from '../_http/session-cookie';

export const dynamic = 'force-dynamic';

export async function GET(request: Request): Promise<Response> {
  const { trivet, visitor } = await asking();
  return form(request, trivet, visitor, { next: nextOf(request), status: 200 });
}

export async function POST(request: Request): Promise<Response> {
  const { trivet, visitor } = await asking();
  const fields = fromThisSite(request) ? await readForm(request) : null;
  if (fields === null) {
    const problem = 'That form could not be read. Fill it in here and send it again.';
    return form(request, trivet, visitor, { next: null, status: 400, problem });
  }
  const { passphrase, next } = fields;
  const answer = await unlock(trivet, visitor, { passphrase, next, from: addressOf(request) }, new Date());
  if (answer.kind === 'unlocked') {
    const cookie = answer.token && sessionCookie(answer.token, GUEST_SESSION_MS / 1000);
    return seeOther(answer.next, cookie ? { 'Set-Cookie': cookie } : {});
  }
  const tooMany = answer.kind === 'too many';
  return form(request, trivet, visitor, {
    next: answer.next,
    status: tooMany ? 429 : 422,
    problem: answer.problem,
    ...(tooMany && { headers: { 'Retry-After': String(answer.seconds) } }),
  });
}

interface FormState {
  readonly next: string | null;
  readonly status: number;
  readonly problem?: string;
  readonly headers?: Readonly<Record<string, string>>;
}

async function form(
  request: Request,
  trivet: Trivet,
  visitor: Visitor,
  { next, status, problem, headers }: FormState,
): Promise<Response> {
  const html = await renderPassphrase({
    frame: frameFor(lookOf(trivet, visitor, request), null),
    delivery: delivery(visitor.person?.desk ?? false, false),
    next: safeNext(next),
    problem: problem ?? null,
  });
  return htmlResponse(html, { status, ...(headers && { headers }) });
}
