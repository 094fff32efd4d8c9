/** Who is asking: a session cookie turned into a visitor. */
import { guest, type VisitorFacts } from '@/core';
import { readSession, type Session } from '@/store';
import type { Person } from './person';
import { hashToken } from './secrets';
import type { Trivet } from './trivet';

/** A visitor of the site: a guest, or a person with their session. A guest has one after typing a passphrase. */
export interface Visitor {
  readonly person: Person | null;
  readonly facts: VisitorFacts;
  /** The hash of the session's token; what belongs to a session is bound to this. */
  readonly session: string | null;
}

/** Somebody without a session. */
export const guestVisitor: Visitor = { person: null, facts: guest, session: null };

/** The visitor whose cookie this is. A token that is unknown, ended or expired makes a guest. */
export async function visitorOf(trivet: Trivet, token: string | undefined, now: Date): Promise<Visitor> {
  const known = knownVisitorOf(trivet, token, now);
  if (known || !token) return known ?? guestVisitor;
  const { endings } = trivet;
  const session = await readSession(trivet.db, hashToken(token));
  if (!session) return guestVisitor;
  // One that ended while it was read must not be remembered.
  if (endings === trivet.endings) trivet.rememberSession(session);
  return visitorIn(trivet, session, now);
}

/** The same, when no more than memory has to be asked for it: one hash, and one look. Null when the database has to be. */
export function knownVisitorOf(trivet: Trivet, token: string | undefined, now: Date): Visitor | null {
  if (!token || token.length > 100) return guestVisitor;
  const session = trivet.sessions.get(hashToken(token));
  return session === undefined ? null : visitorIn(trivet, session, now);
}

function visitorIn(trivet: Trivet, session: Session, now: Date): Visitor {
  if (session.expiresAt <= now) return guestVisitor;
  const { passphrases } = session;
  const person = session.person === null ? null : trivet.state.people.get(session.person);
  if (person === undefined) return guestVisitor;
  const facts = person?.facts ?? guest;
  return {
    person,
    facts: passphrases.length === 0 ? facts : { ...facts, passphrases },
    session: session.tokenHash,
  };
}
