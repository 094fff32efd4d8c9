/**
 * Typing a passphrase. A right one is known for the rest of the session; a guest gets a session for it. Attempts are
 * counted by network address before the passphrase is looked at, so that many at once gain nothing.
 */
import { z } from 'zod';
import { byMessages, safeNext } from '@/core';
import { findPassphrase, insertSession, setPassphrases, uncountAttempt } from '@/store';
import type { Trivet, Visitor } from '../running';
import { hashPassphrase, hashToken, messagesOf, newToken } from '../running';
import { countTry } from './limits';

const WINDOW_MS = 15 * 60_000;
const MOST_PER_ADDRESS = 10;
/** How long a guest's session lasts, in milliseconds. */
export const GUEST_SESSION_MS = 24 * 60 * 60_000;

const typedIn = byMessages(({ passphrase: words }) =>
  z.string({ error: words.one }).trim().min(1, words.none).max(200, words.long),
);

/** The form's fields as they came. */
export interface UnlockRequest {
  readonly passphrase: unknown;
  readonly next: unknown;
  /** The network address that the request came from. */
  readonly from: string;
}

export type UnlockAnswer =
  /** The token is that of a new session, or null when the visitor had one. */
  | { readonly kind: 'unlocked'; readonly token: string | null; readonly next: string }
  | {
      readonly kind: 'wrong' | 'too many';
      readonly problem: string;
      readonly next: string;
      /** When to try again, in seconds; only for *too many*. */
      readonly seconds: number;
    };

/** Checks the limits, then the passphrase. */
export async function unlock(
  trivet: Trivet,
  visitor: Visitor,
  request: UnlockRequest,
  now: Date,
): Promise<UnlockAnswer> {
  const next = safeNext(typeof request.next === 'string' ? request.next : null);
  const messages = messagesOf(trivet.state);
  const parsed = typedIn(messages).safeParse(request.passphrase);
  if (!parsed.success)
    return { kind: 'wrong', problem: parsed.error.issues[0]?.message ?? '', next, seconds: 0 };
  const key = `passphrase ${request.from}`;
  const often = await countTry(trivet, [{ key, most: MOST_PER_ADDRESS, within: WINDOW_MS }], now);
  if (often) return { kind: 'too many', problem: often.message, next, seconds: often.seconds };
  const { passphraseSalt } = trivet.state.settings;
  const found = await findPassphrase(trivet.db, await hashPassphrase(parsed.data, passphraseSalt));
  if (found === null) return { kind: 'wrong', problem: messages.passphrase.wrong, next, seconds: 0 };
  await uncountAttempt(trivet.db, key);
  const passphrases = [...new Set([...visitor.facts.passphrases, found])];
  if (visitor.session !== null) {
    await setPassphrases(trivet.db, visitor.session, passphrases);
    trivet.readSessionAgain(visitor.session);
    return { kind: 'unlocked', token: null, next };
  }
  const token = newToken();
  const session = {
    tokenHash: hashToken(token),
    person: null,
    passphrases,
    expiresAt: new Date(now.getTime() + GUEST_SESSION_MS),
  };
  await insertSession(trivet.db, session, now);
  trivet.rememberSession(session);
  return { kind: 'unlocked', token, next };
}
