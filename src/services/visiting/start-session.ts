/** Starting a session for somebody who has shown who they are. */
import { guest, type PassphraseId, type PersonId } from '@/core';
import { deleteSessionsOf, insertSession } from '@/store';
import type { Trivet } from '../running';
import { deviceMark, hashToken, newToken } from '../running';
import { landingFor } from './landing';

/** How long a session lasts, in milliseconds. */
export const SESSION_MS = 14 * 24 * 60 * 60_000;

export interface Started {
  readonly token: string;
  /** For this browser to keep: that this account signed in with it. */
  readonly device: string;
  /** Where to go now. */
  readonly next: string;
}

/**
 * The same for somebody who has just shown that the account is theirs: whoever was signed in to it before had not, and is
 * signed out.
 */
export async function startAnew(
  ...[trivet, person, ...rest]: Parameters<typeof startSession>
): Promise<Started> {
  await deleteSessionsOf(trivet.db, person);
  trivet.forgetSessionsOf(person);
  return startSession(trivet, person, ...rest);
}

/** Starts a session. `next` is where the person was going, a path that was checked. */
export async function startSession(
  trivet: Trivet,
  person: PersonId,
  passphrases: readonly PassphraseId[],
  next: string,
  now: Date,
): Promise<Started> {
  const token = newToken();
  const session = {
    tokenHash: hashToken(token),
    person,
    passphrases,
    expiresAt: new Date(now.getTime() + SESSION_MS),
  };
  await insertSession(trivet.db, session, now);
  trivet.rememberSession(session);
  const { state } = trivet;
  const facts = { ...(state.people.get(person)?.facts ?? guest), passphrases };
  const device = deviceMark(person, state.settings.shareKey);
  return { token, device, next: landingFor(state, 'sign in', facts, next, now) };
}
