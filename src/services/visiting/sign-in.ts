/**
 * Signing in. An unknown account and a wrong password get the same answer in the same time; failures are limited by
 * account and by network address, counted before the password is looked at, so that many at once gain nothing.
 */
import { z } from 'zod';
import { byMessages, type PassphraseId, type PersonId, safeNext } from '@/core';
import { findCredentials, forgetAttempts, uncountAttempt } from '@/store';
import type { Trivet } from '../running';
import { deviceOf, hashToken, messagesOf, passwordIsRight } from '../running';
import { countTry } from './limits';
import { type Started, startSession } from './start-session';

const WINDOW_MS = 15 * 60_000;
const MOST_PER_ACCOUNT = 8;
const MOST_PER_ADDRESS = 60;

const formIn = byMessages(({ signIn: words }) =>
  z.object({
    email: z.string({ error: words.oneEmail }).trim().min(1, words.noEmail).max(254, words.longEmail),
    password: z.string({ error: words.onePassword }).min(1, words.noPassword).max(1000, words.longPassword),
  }),
);

/** The form's fields as they came. A field that was sent twice is a list. */
export interface SignInRequest {
  readonly email: unknown;
  readonly password: unknown;
  readonly next: unknown;
  /** The network address that the request came from. */
  readonly from: string;
  /** The marks of browsers that somebody signed in with before, as this one keeps them. */
  readonly devices?: readonly string[];
  /** Those that were typed before signing in; they stay known. */
  readonly passphrases: readonly PassphraseId[];
}

export type SignInAnswer =
  | ({ readonly kind: 'signed in' } & Started)
  | { readonly kind: 'wrong'; readonly problems: SignInProblems; readonly next: string }
  | {
      readonly kind: 'too many';
      readonly seconds: number;
      readonly problems: SignInProblems;
      readonly next: string;
    };

/** What to say next to each field, or above the form. */
export interface SignInProblems {
  readonly email?: string;
  readonly password?: string;
  readonly form?: string;
}

/** Checks the form and the limits, then the password; starts a session when it is right. */
export async function signIn(trivet: Trivet, request: SignInRequest, now: Date): Promise<SignInAnswer> {
  const next = safeNext(typeof request.next === 'string' ? request.next : null);
  const messages = messagesOf(trivet.state);
  const parsed = formIn(messages).safeParse(request);
  if (!parsed.success) {
    const { fieldErrors } = z.flattenError(parsed.error);
    const problems = {
      ...(fieldErrors.email?.[0] && { email: fieldErrors.email[0] }),
      ...(fieldErrors.password?.[0] && { password: fieldErrors.password[0] }),
    };
    return { kind: 'wrong', problems, next };
  }
  const email = parsed.data.email.toLowerCase();
  const account = `account ${hashToken(email)}`;
  const address = `address ${request.from}`;
  const found = await findCredentials(trivet.db, email);
  const device = found ? deviceIn(trivet, request.devices ?? [], found.person) : null;
  // A browser that signed in to this account before has a count of its own, which strangers can't use up.
  const counted = device === null ? [account, address] : [`device ${device}`];
  const often = await countTry(
    trivet,
    counted.map((key) => ({
      key,
      most: key === address ? MOST_PER_ADDRESS : MOST_PER_ACCOUNT,
      within: WINDOW_MS,
    })),
    now,
  );
  if (often) return { kind: 'too many', seconds: often.seconds, problems: { form: often.message }, next };
  const right = await passwordIsRight(parsed.data.password, found?.passwordHash);
  if (!right || !found) {
    return { kind: 'wrong', problems: { form: messages.signIn.wrong }, next };
  }
  await forgetAttempts(trivet.db, device === null ? account : `device ${device}`, now);
  if (device === null) await uncountAttempt(trivet.db, address);
  return { kind: 'signed in', ...(await startSession(trivet, found.person, request.passphrases, next, now)) };
}

const MOST_DEVICES = 8;

function deviceIn(trivet: Trivet, marks: readonly string[], person: PersonId): string | null {
  for (const mark of marks.slice(0, MOST_DEVICES)) {
    const device = deviceOf(mark, person, trivet.state.settings.shareKey);
    if (device !== null) return device;
  }
  return null;
}
