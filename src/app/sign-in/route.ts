/** Signing in: a plain form, and back to where one was. */
import { safeNext } from '@/core';
import {
  frameFor,
  SESSION_MS,
  type SignInProblems,
  signIn,
  signInNote,
  signOut,
  type Trivet,
  type Visitor,
} from '@/services';
import { renderSignIn } from '@/site';
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
    const problems = { form: 'That form could not be read. Fill it in here and send it again.' };
    return form(request, trivet, visitor, { next: null, status: 400, problems });
  }
  const { email, password, next } = fields;
  const { passphrases } = visitor.facts;
  const given = { email, password, next, from: addressOf(request), passphrases };
  const answer = await signIn(trivet, given, new Date());
  if (answer.kind === 'signed in') {
    await signOut(trivet, visitor);
    return seeOther(answer.next, { 'Set-Cookie': sessionCookie(answer.token, SESSION_MS / 1000) });
  }
  const status = answer.kind === 'too many' ? 429 : 422;
  return form(request, trivet, visitor, {
    next: answer.next,
    status,
    problems: answer.problems,
    email: typeof email === 'string' ? email.slice(0, 254) : '',
    ...(answer.kind === 'too many' && { headers: { 'Retry-After': String(answer.seconds) } }),
  });
}

interface FormState {
  readonly next: string | null;
  readonly status: number;
  readonly email?: string;
  readonly problems?: SignInProblems;
  readonly headers?: Readonly<Record<string, string>>;
}

async function form(
  request: Request,
  trivet: Trivet,
  visitor: Visitor,
  { next, status, email = '', problems = {}, headers }: FormState,
) {
  const look = lookOf(trivet, visitor, request);
  const html = await renderSignIn({
    frame: frameFor(look, null),
    note: signInNote(look),
    delivery: delivery(visitor.person?.desk ?? false, false),
    next: safeNext(next),
    email,
    problems,
    signedInAs: visitor.person?.name ?? null,
  });
  return htmlResponse(html, { status, ...(headers && { headers }) });
}
