/** Signing up: name, mail address and password; then the code that came by mail. */
import { safeNext } from '@/core';
import {
  askedAtSignUp,
  confirmSignUp,
  frameFor,
  type JourneyProblems,
  messagesOf,
  sendAgain,
  signOut,
  startSignUp,
} from '@/services';
import { renderCode, renderSignUp } from '@/site';
import type { Answer } from '../_http/answer';
import { nextOf } from '../_http/request';
import { htmlAnswer, seeOther } from '../_http/response';
import { beginning } from '../_http/session-cookie';
import type { Ask, Door } from './door';
import { type Fields, fieldsOf, networkOf, retryAfter, shown, unreadable } from './form-door';
import { invited } from './invited';
import { missing } from './page';

export const signUp: Door = {
  GET: (ask) => {
    const [step, ...more] = ask.rest;
    if (step === 'invited') return invited.GET(ask);
    if (more.length > 0) return missing(ask);
    if (step === undefined) return first(ask, null, { next: nextOf(ask.request), status: 200 });
    return step === 'confirm'
      ? second(ask, { token: tokenIn(ask), next: nextOf(ask.request), status: 200 })
      : missing(ask);
  },
  POST: async (ask) => {
    const [step, ...more] = ask.rest;
    if (step === 'invited') return invited.POST(ask);
    const fields = await fieldsOf(ask);
    if (more.length > 0) return missing(ask);
    switch (step) {
      case undefined:
        return fields === null
          ? first(ask, null, { next: null, status: 400, problems: { form: unreadable(ask) } })
          : begin(ask, fields);
      case 'confirm':
        return fields === null
          ? second(ask, { token: '', next: null, status: 400, problems: { code: unreadable(ask) } })
          : finish(ask, fields);
      case 'again':
        return again(ask, fields);
      default:
        return missing(ask);
    }
  },
};

async function begin(ask: Ask, fields: Fields): Promise<Answer> {
  const answer = await startSignUp(ask.trivet, fields, networkOf(ask), ask.now);
  if (answer.kind === 'sent') return seeOther(confirmAddress('/sign-up', answer.token, answer.next));
  if (answer.kind === 'done') return seeOther(answer.started.next);
  return first(ask, fields, {
    next: answer.next,
    status: answer.kind === 'too many' ? 429 : 422,
    problems: answer.problems,
    headers: retryAfter(answer.seconds),
  });
}

async function finish(ask: Ask, fields: Fields): Promise<Answer> {
  const answer = await confirmSignUp(
    ask.trivet,
    fields,
    { from: networkOf(ask), passphrases: ask.visitor.facts.passphrases },
    ask.now,
  );
  if (answer.kind === 'done') {
    await signOut(ask.trivet, ask.visitor);
    return beginning(seeOther(answer.started.next), ask.request, answer.started);
  }
  const [problems, seconds] = answer.kind === 'sent' ? [{}, 0] : [answer.problems, answer.seconds];
  const status = answer.kind === 'too many' ? 429 : 422;
  const headers = retryAfter(seconds);
  return second(ask, { token: shown(fields, 'token'), next: answer.next, status, problems, headers });
}

async function again(ask: Ask, fields: Fields | null): Promise<Answer> {
  const problem = await sendAgain(ask.trivet, fields?.token, ask.now);
  const token = shown(fields, 'token');
  const next = safeNext(shown(fields, 'next'));
  return problem === null
    ? seeOther(confirmAddress('/sign-up', token, next))
    : second(ask, { token, next, status: 422, problems: { code: problem } });
}

/** Where the code is typed. */
export const confirmAddress = (door: string, token: string, next: string): string =>
  `${door}/confirm?token=${encodeURIComponent(token)}&next=${encodeURIComponent(next)}`;

export const tokenIn = ({ url }: Ask): string => (url.searchParams.get('token') ?? '').slice(0, 100);

interface FormState {
  readonly next: string | null;
  readonly status: number;
  readonly problems?: JourneyProblems;
  readonly headers?: Readonly<Record<string, string>>;
}

/** Who may make an account, in words; null where anybody may. */
function whoMay({ state }: Ask['trivet']): string | null {
  const { signUp, signUpDomains } = state.settings;
  const { signUp: words, either } = messagesOf(state);
  if (signUp === 'anybody') return null;
  return signUp === 'invited' ? words.invitedOnly : words.domainsOnly(either(signUpDomains));
}

async function first(
  { trivet, context, visitor, delivery }: Ask,
  fields: Fields | null,
  { next, status, problems = {}, headers = {} }: FormState,
): Promise<Answer> {
  const html = await renderSignUp({
    frame: frameFor(context, null),
    base: context.base,
    delivery,
    next: safeNext(next),
    problems,
    typed: { name: shown(fields, 'name'), email: shown(fields, 'email') },
    signedInAs: visitor.person?.name ?? null,
    only: whoMay(trivet),
    asked: askedAtSignUp(trivet.state).map((field) => ({
      field,
      value: shown(fields, `field-${field.id}`),
    })),
  });
  return htmlAnswer(html, { status, walk: delivery.walk, headers });
}

async function second(
  { context, delivery }: Ask,
  { token, next, status, problems = {}, headers = {} }: FormState & { readonly token: string },
): Promise<Answer> {
  const html = await renderCode({
    frame: frameFor(context, null),
    base: context.base,
    delivery,
    purpose: 'sign up',
    token,
    next: safeNext(next),
    problems,
  });
  return htmlAnswer(html, { status, walk: delivery.walk, headers });
}
