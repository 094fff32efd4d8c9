/** A new password: the mail address; then the code that came by mail, and the password. */
import { safeNext } from '@/core';
import { confirmReset, frameFor, type JourneyProblems, sendAgain, signOut, startReset } from '@/services';
import { renderCode, renderReset } from '@/site';
import type { Answer } from '../_http/answer';
import { nextOf } from '../_http/request';
import { htmlAnswer, seeOther } from '../_http/response';
import { beginning } from '../_http/session-cookie';
import type { Ask, Door } from './door';
import { type Fields, fieldsOf, networkOf, retryAfter, shown, unreadable } from './form-door';
import { ownerLink } from './owner-link';
import { missing } from './page';
import { confirmAddress, tokenIn } from './sign-up';

export const reset: Door = {
  GET: (ask) => {
    const [step, ...more] = ask.rest;
    if (step === 'owner') return ownerLink.GET(ask);
    if (more.length > 0) return missing(ask);
    if (step === undefined) return first(ask, '', nextOf(ask.request), 200);
    return step === 'confirm' ? second(ask, tokenIn(ask), nextOf(ask.request), 200) : missing(ask);
  },
  POST: async (ask) => {
    const [step, ...more] = ask.rest;
    if (step === 'owner') return ownerLink.POST(ask);
    const fields = await fieldsOf(ask);
    if (more.length > 0 || (step !== undefined && step !== 'confirm' && step !== 'again'))
      return missing(ask);
    if (fields === null) return first(ask, '', null, 400, { form: unreadable(ask) });
    if (step === undefined) return begin(ask, fields);
    const token = shown(fields, 'token');
    if (step === 'confirm') return finish(ask, fields, token);
    const problem = await sendAgain(ask.trivet, token, ask.now);
    const next = safeNext(shown(fields, 'next'));
    return problem === null
      ? seeOther(confirmAddress('/reset', token, next))
      : second(ask, token, next, 422, { code: problem });
  },
};

async function begin(ask: Ask, fields: Fields): Promise<Answer> {
  const answer = await startReset(ask.trivet, fields, networkOf(ask), ask.now);
  if (answer.kind === 'sent') return seeOther(confirmAddress('/reset', answer.token, answer.next));
  if (answer.kind === 'done') return seeOther(answer.started.next);
  const status = answer.kind === 'too many' ? 429 : 422;
  return first(ask, shown(fields, 'email'), answer.next, status, answer.problems, retryAfter(answer.seconds));
}

async function finish(ask: Ask, fields: Fields, token: string): Promise<Answer> {
  const answer = await confirmReset(
    ask.trivet,
    fields,
    { from: networkOf(ask), passphrases: ask.visitor.facts.passphrases },
    ask.now,
  );
  if (answer.kind === 'done') {
    await signOut(ask.trivet, ask.visitor);
    return beginning(seeOther(answer.started.next), ask.request, answer.started);
  }
  if (answer.kind === 'sent') return second(ask, token, answer.next, 422);
  const status = answer.kind === 'too many' ? 429 : 422;
  return second(ask, token, answer.next, status, answer.problems, retryAfter(answer.seconds));
}

async function first(
  { context, delivery }: Ask,
  email: string,
  next: string | null,
  status: number,
  problems: JourneyProblems = {},
  headers: Readonly<Record<string, string>> = {},
): Promise<Answer> {
  const html = await renderReset({
    frame: frameFor(context, null),
    delivery,
    next: safeNext(next),
    email,
    problems,
  });
  return htmlAnswer(html, { status, walk: delivery.walk, headers });
}

async function second(
  { context, delivery }: Ask,
  token: string,
  next: string | null,
  status: number,
  problems: JourneyProblems = {},
  headers: Readonly<Record<string, string>> = {},
): Promise<Answer> {
  const html = await renderCode({
    frame: frameFor(context, null),
    base: context.base,
    delivery,
    purpose: 'reset',
    token,
    next: safeNext(next),
    problems,
  });
  return htmlAnswer(html, { status, walk: delivery.walk, headers });
}
