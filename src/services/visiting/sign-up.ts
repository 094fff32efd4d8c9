/** Signing up and choosing a new password, both with a code sent by mail. */
import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { asId, type PassphraseId, type PersonId, safeNext } from '@/core';
import { mailAddress, newPassword, personName, startsNow } from '../forms';
import { applyChange, newcomer, personWithMail } from '../people';
import type { Trivet } from '../running';
import { hashPassword, momentAt } from '../running';
import {
  type CodeAnswer,
  checkCode,
  codesTooOften,
  confirmedTooOften,
  insteadOf,
  isUsable,
  resendCode,
  sendCode,
} from './mail-code';
import { type Started, startAnew } from './start-session';

/** What is wrong, by field; `form` for all of it. */
export type JourneyProblems = Readonly<
  Partial<Record<'name' | 'email' | 'password' | 'code' | 'form', string>>
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

function wrong(error: z.ZodError, next: string): Journey {
  const problems = Object.fromEntries(
    error.issues.toReversed().map((issue) => [String(issue.path[0] ?? 'form'), issue.message]),
  );
  return { kind: 'wrong', problems, next, seconds: 0 };
}

/** The first step of signing up: a mail with a code. */
export async function startSignUp(trivet: Trivet, fields: Fields, from: string, now: Date): Promise<Journey> {
  const next = nextIn(fields);
  const parsed = z.object({ name: personName, email: mailAddress, password: newPassword }).safeParse(fields);
  if (!parsed.success) return wrong(parsed.error, next);
  const often = await codesTooOften(trivet, parsed.data.email, from, now);
  if (often) return { kind: 'too many', problems: { form: often.message }, next, seconds: often.seconds };
  return send(
    trivet,
    'sign up',
    parsed.data.email,
    parsed.data.name,
    await hashPassword(parsed.data.password),
    next,
    now,
  );
}

/** The first step of a new password: a mail with a code. */
export async function startReset(trivet: Trivet, fields: Fields, from: string, now: Date): Promise<Journey> {
  const next = nextIn(fields);
  const parsed = z.object({ email: mailAddress }).safeParse(fields);
  if (!parsed.success) return wrong(parsed.error, next);
  const often = await codesTooOften(trivet, parsed.data.email, from, now);
  if (often) return { kind: 'too many', problems: { form: often.message }, next, seconds: often.seconds };
  return send(trivet, 'reset', parsed.data.email, '', null, next, now);
}

async function send(
  trivet: Trivet,
  purpose: 'sign up' | 'reset',
  to: string,
  called: string,
  passwordHash: string | null,
  next: string,
  now: Date,
): Promise<Journey> {
  const usable = await isUsable(trivet, { purpose, email: to });
  const instead = usable ? null : insteadOf(trivet, { purpose, email: to });
  const token = await sendCode(trivet, { purpose, email: to, name: called, passwordHash, instead }, now);
  return { kind: 'sent', token, next };
}

/** Sends the code once more. Answers why not, or null. */
export const sendAgain = (trivet: Trivet, token: unknown, now: Date): Promise<string | null> =>
  typeof token === 'string' && token.length <= 100
    ? resendCode(trivet, token, now)
    : Promise.resolve('That form could not be read. Begin again.');

const typed = z.object({
  token: z.string().min(1).max(100),
  code: z
    .string({ error: 'Type the code.' })
    .trim()
    .min(1, 'Type the code.')
    .max(20, 'The code has six digits.'),
});

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
  const parsed = typed.safeParse(fields);
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
      const starts = startsNow(state.settings.starts, state.names);
      const record = {
        ...newcomer(person, code, today),
        ...starts,
        groupsSince: Object.fromEntries(starts.groups.map((group) => [group, today])),
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
  const parsed = typed.extend({ password: newPassword }).safeParse(fields);
  if (!parsed.success) return wrong(parsed.error, next);
  const often = await confirmedTooOften(trivet, from, now);
  if (often) return { kind: 'too many', problems: { code: often.message }, next, seconds: often.seconds };
  const answer = await checkCode(trivet, 'reset', parsed.data.token, parsed.data.code, now);
  if (answer.kind !== 'right') return refused(answer, next);
  const person = personWithMail(trivet.state, answer.code.email);
  if (!person)
    return refused({ kind: 'over', message: 'That account is gone. Sign up for a new one.' }, next);
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
