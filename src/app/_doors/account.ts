/** What members do about themselves: their profile, their keys, being done with what they learn. */
import { safeNext } from '@/core';
import {
  accountOf,
  completeActivity,
  enrolOneself,
  frameFor,
  keepOwnFields,
  keysOf,
  makeKey,
  revokeKey,
  signInAddress,
} from '@/services';
import { renderAccount, renderKeys } from '@/site';
import type { Answer } from '../_http/answer';
import { htmlAnswer, seeOther } from '../_http/response';
import type { Ask, Door } from './door';
import { type Fields, fieldsOf, shown, unreadable } from './form-door';
import { handIn } from './hand-in';
import { missing } from './page';
import { purchases, receipt } from './purchases';
import { quiz } from './quiz';
import { watch } from './watch';

/** What learners do in activities and what somebody bought, each in its own file. */
const OWN = { quiz, 'hand-in': handIn, played: watch, purchases, receipt };
const ownDoor = (what: string | undefined) =>
  what !== undefined && Object.hasOwn(OWN, what) ? OWN[what as keyof typeof OWN] : null;

export const me: Door = {
  GET: async (ask) => {
    const [what, ...more] = ask.rest;
    const own = ownDoor(what);
    if (own) return own.GET({ ...ask, rest: more });
    if (more.length > 0 || (what !== undefined && what !== 'keys')) return missing(ask);
    if (!ask.visitor.person) return seeOther(signInAddress(ask.context, null));
    return what === 'keys' ? keysPage(ask, 200) : account(ask, 200, {});
  },
  POST: async (ask) => {
    const [what, step, ...more] = ask.rest;
    const own = ownDoor(what);
    if (own) return own.POST({ ...ask, rest: ask.rest.slice(1) });
    const fields = await fieldsOf(ask);
    const { person } = ask.visitor;
    if (!person) return seeOther(signInAddress(ask.context, null));
    if (more.length > 0) return missing(ask);
    if (what === undefined) {
      if (fields === null) return account(ask, 400, { form: unreadable(ask) });
      const answer = await keepOwnFields(ask.trivet, person, fields, ask.now);
      if (answer.kind === 'kept') return seeOther(safeNext(shown(fields, 'next')));
      // What was typed stays, next to what is wrong with it.
      const typed = { ...person, profile: { ...person.profile, ...answer.typed } };
      return account({ ...ask, context: { ...ask.context, person: typed } }, 422, answer.problems);
    }
    if ((what === 'done' || what === 'enrol') && step !== undefined && fields !== null)
      return learn(ask, what === 'done' ? completeActivity : enrolOneself, step, fields);
    if (what !== 'keys' || fields === null) return missing(ask);
    if (step === 'revoke') {
      await revokeKey(ask.trivet, person.id, fields.id);
      return seeOther('/me/keys');
    }
    if (step !== undefined) return missing(ask);
    const answer = await makeKey(ask.trivet, person.id, fields, ask.now);
    // The key is on this page and nowhere else, so it is no place to come back to.
    return answer.kind === 'made'
      ? keysPage(ask, 200, { made: answer })
      : keysPage(ask, 422, { problem: answer.problem });
  },
};

/** Being done with an activity, or enrolling in a course, and back to where one was. */
async function learn(
  ask: Ask,
  how: typeof completeActivity | typeof enrolOneself,
  what: string,
  fields: Fields,
): Promise<Answer> {
  const answer = await how(ask.trivet, ask.visitor, what, ask.context.request, ask.now);
  return answer === 'done' ? seeOther(safeNext(shown(fields, 'next'))) : missing(ask);
}

async function account(
  ask: Ask,
  status: number,
  problems: Readonly<Record<string, string>>,
): Promise<Answer> {
  const view = accountOf(ask.context, '/me');
  if (!view) return missing(ask);
  const html = await renderAccount({
    frame: frameFor(ask.context, null),
    delivery: ask.delivery,
    account: view,
    problems,
  });
  return htmlAnswer(html, { status, walk: ask.delivery.walk });
}

interface KeysState {
  readonly made?: { readonly key: string; readonly use: 'api' | 'feed'; readonly name: string };
  readonly problem?: string;
}

async function keysPage(ask: Ask, status: number, { made, problem }: KeysState = {}): Promise<Answer> {
  const { delivery, context, visitor } = ask;
  // Somebody's keys are their own: a walk shows the page without them.
  const keys = visitor.person && !delivery.walk ? await keysOf(ask.trivet, visitor.person.id) : [];
  const html = await renderKeys({
    frame: frameFor(context, null),
    delivery,
    keys,
    made: made ?? null,
    problem: problem ?? null,
  });
  return htmlAnswer(html, { status, walk: delivery.walk });
}
