/** Signing in: a plain form, and back to where one was. */
import { safeNext } from '@/core';
import { frameFor, type SignInProblems, signIn, signInNote, signOut } from '@/services';
import { renderSignIn } from '@/site';
import type { Answer } from '../_http/answer';
import { nextOf } from '../_http/request';
import { htmlAnswer, seeOther } from '../_http/response';
import { beginning, devicesIn } from '../_http/session-cookie';
import type { Ask, Door } from './door';
import { fieldsOf, networkOf, retryAfter, shown, unreadable } from './form-door';
import { missing } from './page';

export const signInDoor: Door = {
  GET: (ask) => (ask.rest.length > 0 ? missing(ask) : form(ask, { next: nextOf(ask.request), status: 200 })),
  POST: async (ask) => {
    if (ask.rest.length > 0) return missing(ask);
    const fields = await fieldsOf(ask);
    if (fields === null) return form(ask, { next: null, status: 400, problems: { form: unreadable(ask) } });
    const { email, password, next } = fields;
    const { passphrases } = ask.visitor.facts;
    const given = {
      email,
      password,
      next,
      from: networkOf(ask),
      devices: devicesIn(ask.request),
      passphrases,
    };
    const answer = await signIn(ask.trivet, given, ask.now);
    if (answer.kind === 'signed in') {
      await signOut(ask.trivet, ask.visitor);
      return beginning(seeOther(answer.next), ask.request, answer);
    }
    return form(ask, {
      next: answer.next,
      status: answer.kind === 'too many' ? 429 : 422,
      problems: answer.problems,
      email: shown(fields, 'email'),
      headers: retryAfter(answer.kind === 'too many' ? answer.seconds : 0),
    });
  },
};

interface FormState {
  readonly next: string | null;
  readonly status: number;
  readonly email?: string;
  readonly problems?: SignInProblems;
  readonly headers?: Readonly<Record<string, string>>;
}

async function form(
  { context, visitor, delivery }: Ask,
  { next, status, email = '', problems = {}, headers = {} }: FormState,
): Promise<Answer> {
  const html = await renderSignIn({
    frame: frameFor(context, null),
    base: context.base,
    note: signInNote(context),
    delivery,
    next: safeNext(next),
    email,
    problems,
    signedInAs: visitor.person?.name ?? null,
  });
  return htmlAnswer(html, { status, walk: delivery.walk, headers });
}
