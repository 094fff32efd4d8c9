/** Typing a passphrase: a plain form, and back to where one was. */
import { safeNext } from '@/core';
import { frameFor, GUEST_SESSION_MS, unlock } from '@/services';
import { renderPassphrase } from '@/site';
import type { Answer } from '../_http/answer';
import { nextOf } from '../_http/request';
import { htmlAnswer, seeOther } from '../_http/response';
import { sessionCookie } from '../_http/session-cookie';
import type { Ask, Door } from './door';
import { fieldsOf, networkOf, retryAfter, unreadable } from './form-door';
import { missing } from './page';

export const passphrase: Door = {
  GET: (ask) => (ask.rest.length > 0 ? missing(ask) : form(ask, nextOf(ask.request), 200, null)),
  POST: async (ask) => {
    if (ask.rest.length > 0) return missing(ask);
    const fields = await fieldsOf(ask);
    if (fields === null) return form(ask, null, 400, unreadable(ask));
    const given = { passphrase: fields.passphrase, next: fields.next, from: networkOf(ask) };
    const answer = await unlock(ask.trivet, ask.visitor, given, ask.now);
    if (answer.kind === 'unlocked') {
      const cookie = answer.token && sessionCookie(answer.token, GUEST_SESSION_MS / 1000);
      return seeOther(answer.next, cookie ? { 'Set-Cookie': cookie } : {});
    }
    const tooMany = answer.kind === 'too many';
    return form(ask, answer.next, tooMany ? 429 : 422, answer.problem, retryAfter(answer.seconds));
  },
};

async function form(
  { context, delivery }: Ask,
  next: string | null,
  status: number,
  problem: string | null,
  headers: Readonly<Record<string, string>> = {},
): Promise<Answer> {
  const html = await renderPassphrase({
    frame: frameFor(context, null),
    delivery,
    next: safeNext(next),
    problem,
  });
  return htmlAnswer(html, { status, walk: delivery.walk, headers });
}
