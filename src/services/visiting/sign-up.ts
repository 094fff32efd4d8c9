/** Signing up and choosing a new password, both with a code sent by mail. */
import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import {
  asId,
  byMessages,
  fieldValueProblem,
  type PassphraseId,
  type PersonId,
  type SiteNames,
  safeNext,
} from '@/core';
import { accountForm, startsNow } from '../forms';
import { applyChange, newcomer, personWithMail } from '../people';
import type { SiteState, Trivet } from '../running';
import { hashPassword, messagesOf, momentAt } from '../running';
import {
  type CodeAnswer,
  checkCode,
  codesTooOften,
  confirmedTooOften,
  insteadOf,
  isUsable,
  resendCode,
  type Sending,
  sendCode,
} from './mail-code';
import { fieldsIn } from './own-account';
import { type Started, startAnew } from './start-session';

/** What is wrong, by field; `form` for all of it. */
export type JourneyProblems = Readonly<
  Partial<Record<'name' | 'email' | 'password' | 'code' | 'form' | `field-${string}`, string>>
>;

export type Journey =
  /** A mail went out; the token is what the next form carries. */
  | { readonly kind: 'sent'; readonly token: string; readonly next: string }
  | { readonly kind: 'done'; readonly started: Started }
  | {
      readonly kind: 'wrong' | 'too many' | 'over';
      readonly problems: JourneyProblems;
      readonly next: string;
      /** When to try again; 0 unless it was tried too often. */
      readonly seconds: number;
    };

type Fields = Readonly<Record<string, unknown>>;

const nextIn = ({ next }: Fields): string => safeNext(typeof next === 'string' ? next : null);

function wrong(error: z.ZodError, next: string): Extract<Journey, { kind: 'wrong' | 'too many' | 'over' }> {
  const problems = Object.fromEntries(
    error.issues.toReversed().map((issue) => [String(issue.path[0] ?? 'form'), issue.message]),
  );
  return { kind: 'wrong', problems, next, seconds: 0 };
}

/** The fields that whoever signs up is asked to fill in, in the order of their names. */
export const askedAtSignUp = ({ settings, names }: SiteState): SiteNames['fields'] => {
  const { asks } = startsNow(settings.starts, names);
  return names.fields.filter(({ id }) => asks.includes(id));
};

/** The first step of signing up: a mail with a code. */
export async function startSignUp(trivet: Trivet, fields: Fields, from: string, now: Date): Promise<Journey> {
  const next = nextIn(fields);
  const messages = messagesOf(trivet.state);
  const { personName, mailAddress, newPassword } = accountForm(messages);
  const parsed = z.object({ name: personName, email: mailAddress, password: newPassword }).safeParse(fields);
  const asked = fieldsIn(askedAtSignUp(trivet.state), fields, messages);
  const problems = Object.fromEntries(
    Object.entries(asked.problems).map(([field, message]) => [`field-${field}`, message]),
  );
  if (!parsed.success || Object.keys(problems).length > 0) {
    const others = parsed.success ? {} : wrong(parsed.error, next).problems;
    return { kind: 'wrong', problems: { ...problems, ...others }, next, seconds: 0 };
  }
  const { email, name, password } = parsed.data;
  const often = await codesTooOften(trivet, email, from, now);
  if (often) return { kind: 'too many', problems: { form: often.message }, next, seconds: often.seconds };
  const passwordHash = await hashPassword(password);
  return send(trivet, { purpose: 'sign up', email, name, passwordHash, profile: asked.typed }, next, now);
}

/** The first step of a new password: a mail with a code. */
export async function startReset(trivet: Trivet, fields: Fields, from: string, now: Date): Promise<Journey> {
  const next = nextIn(fields);
  const { mailAddress } = accountForm(messagesOf(trivet.state));
  const parsed = z.object({ email: mailAddress }).safeParse(fields);
  if (!parsed.success) return wrong(parsed.error, next);
  const often = await codesTooOften(trivet, parsed.data.email, from, now);
  if (often) return { kind: 'too many', problems: { form: often.message }, next, seconds: often.seconds };
  const { email } = parsed.data;
  return send(trivet, { purpose: 'reset', email, name: '', passwordHash: null, profile: {} }, next, now);
}

async function send(
  trivet: Trivet,
  sending: Omit<Sending, 'instead'>,
  next: string,
  now: Date,
): Promise<Extract<Journey, { kind: 'sent' }>> {
  const { purpose, email } = sending;
  const usable = await isUsable(trivet, { purpose, email });
  const instead = usable ? null : insteadOf(trivet, { purpose, email });
  const token = await sendCode(trivet, { ...sending, instead }, now);
  return { kind: 'sent', token, next };
}

/** Sends the code once more. Answers why not, or null. */
export const sendAgain = (trivet: Trivet, token: unknown, now: Date): Promise<string | null> =>
  typeof token === 'string' && token.length <= 100
    ? resendCode(trivet, token, now)
    : Promise.resolve(messagesOf(trivet.state).code.unreadable);

const typedIn = byMessages(({ code: words }) =>
  z.object({
    token: z.string({ error: words.unreadable }).min(1, words.unreadable).max(100, words.unreadable),
    code: z.string({ error: words.none }).trim().min(1, words.none).max(20, words.long),
  }),
);

/** Who sends a code back: from which network address, and what they typed before. */
interface Confirming {
  readonly from: string;
  readonly passphrases: readonly PassphraseId[];
}

/** The second step of signing up: the code. Makes the account and signs in. */
export async function confirmSignUp(
  trivet: Trivet,
  fields: Fields,
  { from, passphrases }: Confirming,
  now: Date,
): Promise<Journey> {
  const next = nextIn(fields);
  const parsed = typedIn(messagesOf(trivet.state)).safeParse(fields);
  if (!parsed.success) return wrong(parsed.error, next);
  const often = await confirmedTooOften(trivet, from, now);
  if (often) return { kind: 'too many', problems: { code: often.message }, next, seconds: often.seconds };
  const answer = await checkCode(trivet, 'sign up', parsed.data.token, parsed.data.code, now);
  if (answer.kind !== 'right') return refused(answer, next);
  const { code } = answer;
  const hash = code.passwordHash;
  if (hash === null) throw new Error('A code for signing up has no password.');
  let person = asId<PersonId>(randomUUID());
  await applyChange(
    trivet,
    { name: code.name },
    (state) => {
      // Somebody whom an administrator wrote down before they signed up keeps everything they were given.
      const there = personWithMail(state, code.email);
      if (there) {
        person = there.id;
        return { summary: `${there.name} signed up`, people: [], names: null, password: { person, hash } };
      }
      const { today } = momentAt(state, now);
      const { level, roles, groups, asks } = startsNow(state.settings.starts, state.names);
      // What is no longer asked, or no longer fits, is left out.
      const filled = Object.entries(code.profile).filter(([id, value]) => {
        const field = state.names.fields.find((one) => one.id === id);
        return field && asks.includes(field.id) && fieldValueProblem(field, value) === null;
      });
      const record = {
        ...newcomer(person, code, today),
        level,
        roles,
        groups,
        groupsSince: Object.fromEntries(groups.map((group) => [group, today])),
        profile: Object.fromEntries(filled),
      };
      return {
        summary: `${record.name} signed up`,
        people: [{ before: null, after: record }],
        names: null,
        password: { person, hash },
      };
    },
    now,
  );
  return { kind: 'done', started: await startAnew(trivet, person, passphrases, next, now) };
}

/** The second step of a new password: the code and the password. Ends every session there was, and signs in. */
export async function confirmReset(
  trivet: Trivet,
  fields: Fields,
  { from, passphrases }: Confirming,
  now: Date,
): Promise<Journey> {
  const next = nextIn(fields);
  const messages = messagesOf(trivet.state);
  const parsed = typedIn(messages)
    .extend({ password: accountForm(messages).newPassword })
    .safeParse(fields);
  if (!parsed.success) return wrong(parsed.error, next);
  const often = await confirmedTooOften(trivet, from, now);
  if (often) return { kind: 'too many', problems: { code: often.message }, next, seconds: often.seconds };
  const answer = await checkCode(trivet, 'reset', parsed.data.token, parsed.data.code, now);
  if (answer.kind !== 'right') return refused(answer, next);
  const person = personWithMail(trivet.state, answer.code.email);
  if (!person) return refused({ kind: 'over', message: messages.code.gone }, next);
  // Hashing is slow on purpose, so it is done for those alone who have the code.
  const hash = await hashPassword(parsed.data.password);
  await applyChange(
    trivet,
    { name: person.name },
    () => ({
      summary: `${person.name} chose a new password`,
      people: [],
      names: null,
      password: { person: person.id, hash },
    }),
    now,
  );
  return { kind: 'done', started: await startAnew(trivet, person.id, passphrases, next, now) };
}

const refused = (answer: Exclude<CodeAnswer, { kind: 'right' }>, next: string): Journey => ({
  kind: answer.kind,
  problems: { code: answer.message },
  next,
  seconds: 0,
});
