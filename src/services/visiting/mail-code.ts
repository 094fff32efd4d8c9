/**
 * Codes of six digits sent by mail. A code is good for a quarter of an hour and five attempts, which are counted before the
 * code is looked at. Whether there is such an account, neither the page nor the time it takes tells: a mail goes out either
 * way, and what it says is between Trivet and the mailbox.
 */
import { createHash, randomInt, timingSafeEqual } from 'node:crypto';
import type { FieldValue, LetterKind } from '@/core';
import {
  type Code,
  countCodeAttempt,
  deleteCode,
  findCredentials,
  putIntoOutbox,
  readCode,
  writeCode,
} from '@/store';
import { writtenLetter } from '../mail';
import { personWithMail } from '../people';
import type { Trivet } from '../running';
import { hashToken, messagesOf, newToken } from '../running';
import { countTry, MINUTE } from './limits';

const CODE_MS = 15 * 60_000;
const MOST_ATTEMPTS = 5;
const MOST_MAILS = 3;
const WINDOW_MS = 60 * 60_000;
const MOST_PER_NETWORK = 20;
const MOST_PER_MAILBOX = 6;

export type Purpose = Code['purpose'];

const codeHash = (token: string, code: string): string =>
  createHash('sha256').update(`${token} ${code}`).digest('hex');

const newCode = (): string => String(randomInt(0, 1_000_000)).padStart(6, '0');

/** Counts that codes are asked for; null while the limits are kept. */
export const codesTooOften = (trivet: Trivet, email: string, from: string, now: Date) =>
  countTry(
    trivet,
    [
      { key: `codes to ${hashToken(email)}`, most: MOST_PER_MAILBOX, within: WINDOW_MS },
      { key: `codes for ${from}`, most: MOST_PER_NETWORK, within: WINDOW_MS },
    ],
    now,
  );

const MOST_CONFIRMS = 30;

/** Counts that a code is sent back from a network address; null while the limit is kept. */
export const confirmedTooOften = (trivet: Trivet, from: string, now: Date) =>
  countTry(trivet, [{ key: `codes from ${from}`, most: MOST_CONFIRMS, within: 15 * MINUTE }], now);

/** What to send: what the code is for, with `null` when it can't be used and the mail says why. */
export interface Sending {
  readonly purpose: Purpose;
  readonly email: string;
  readonly name: string;
  readonly passwordHash: string | null;
  /** What was filled in, by field. */
  readonly profile: Readonly<Record<string, FieldValue>>;
  /** The letter that says instead why there is none. */
  readonly instead: LetterKind | null;
}

/** Sends a code. Answers the token that the form carries. */
export async function sendCode(trivet: Trivet, sending: Sending, now: Date): Promise<string> {
  const token = newToken();
  const { purpose, email, name, passwordHash, profile, instead } = sending;
  const code = newCode();
  await writeCode(
    trivet.db,
    {
      tokenHash: hashToken(token),
      purpose,
      email,
      name,
      passwordHash,
      profile,
      // Without a use there is no code that fits.
      codeHash: instead === null ? codeHash(token, code) : codeHash(token, newToken()),
      expiresAt: new Date(now.getTime() + CODE_MS),
    },
    now,
  );
  await deliver(trivet, email, instead, purpose, code, now);
  return token;
}

const WITH_CODE = { 'sign up': 'signUp', reset: 'newPassword' } as const satisfies Record<
  Purpose,
  LetterKind
>;

function deliver(
  trivet: Trivet,
  to: string,
  instead: LetterKind | null,
  purpose: Purpose,
  code: string,
  at: Date,
): Promise<void> {
  // Nothing in it was typed by whoever asked for it: it may go to somebody else.
  const letter =
    instead === null
      ? writtenLetter(trivet.state, WITH_CODE[purpose], { code })
      : writtenLetter(trivet.state, instead, {});
  // What comes when the code in it is over only confuses.
  return putIntoOutbox(trivet.db, { to, ...letter, at, goodUntil: new Date(at.getTime() + CODE_MS) });
}

export type CodeAnswer =
  | { readonly kind: 'right'; readonly code: Code }
  | { readonly kind: 'wrong'; readonly message: string }
  /** Nothing can be typed any more. */
  | { readonly kind: 'over'; readonly message: string };

/** Checks a code that was typed. A right one is used up. */
export async function checkCode(
  trivet: Trivet,
  purpose: Purpose,
  token: string,
  typed: string,
  now: Date,
): Promise<CodeAnswer> {
  const { code: words } = messagesOf(trivet.state);
  const tokenHash = hashToken(token);
  const attempts = await countCodeAttempt(trivet.db, tokenHash);
  const code = await readCode(trivet.db, tokenHash);
  if (!code || code.purpose !== purpose || code.expiresAt <= now || attempts > MOST_ATTEMPTS)
    return { kind: 'over', message: words.over };
  const digits = typed.replace(/\s/g, '');
  const same = timingSafeEqual(Buffer.from(codeHash(token, digits)), Buffer.from(code.codeHash));
  if (!same) {
    const left = MOST_ATTEMPTS - attempts;
    return left === 0
      ? { kind: 'over', message: words.fifth }
      : { kind: 'wrong', message: words.wrong(left) };
  }
  // Of two who type it at the same moment, one gets in.
  return (await deleteCode(trivet.db, tokenHash))
    ? { kind: 'right', code }
    : { kind: 'over', message: words.over };
}

/** Sends another code for the same form. Answers whether it did, or why not. */
export async function resendCode(trivet: Trivet, token: string, now: Date): Promise<string | null> {
  const { code: words } = messagesOf(trivet.state);
  const code = await readCode(trivet.db, hashToken(token));
  if (!code || code.expiresAt <= now) return words.over;
  if (code.sent >= MOST_MAILS) return words.sentOften;
  const { purpose, email } = code;
  const digits = newCode();
  const usable = await isUsable(trivet, code);
  await writeCode(
    trivet.db,
    {
      ...code,
      codeHash: usable ? codeHash(token, digits) : code.codeHash,
      sent: code.sent + 1,
      attempts: 0,
      expiresAt: new Date(now.getTime() + CODE_MS),
    },
    now,
  );
  await deliver(trivet, email, usable ? null : insteadOf(trivet, code), purpose, digits, now);
  return null;
}

/** Whether a code can be used for what it is for. */
export async function isUsable(
  trivet: Trivet,
  { purpose, email }: Pick<Code, 'purpose' | 'email'>,
): Promise<boolean> {
  const account = await findCredentials(trivet.db, email);
  const hasPassword = typeof account?.passwordHash === 'string';
  return purpose === 'sign up'
    ? !hasPassword && maySignUp(trivet, email)
    : personWithMail(trivet.state, email) !== undefined;
}

/** Whether whoever has a mail address may make an account: whoever is written down already always may. */
function maySignUp({ state }: Trivet, email: string): boolean {
  const { settings } = state;
  const isAt = (domain: string) => email.slice(email.lastIndexOf('@') + 1) === domain;
  return (
    settings.signUp === 'anybody' ||
    (settings.signUp === 'domains' && settings.signUpDomains.some(isAt)) ||
    personWithMail(state, email) !== undefined
  );
}

/** The letter that goes out when there is nothing to type a code for. */
export const insteadOf = (trivet: Trivet, { purpose, email }: Pick<Code, 'purpose' | 'email'>): LetterKind =>
  purpose === 'reset' ? 'noAccount' : maySignUp(trivet, email) ? 'signUpAgain' : 'signUpClosed';
