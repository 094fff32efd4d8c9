/** Who is asking: a session cookie turned into a visitor. */
import { guest, type VisitorFacts } from '@/core';
import { readSession } from '@/store';
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

const guestVisitor: Visitor = { person: null, facts: guest, session: null };

/** The visitor whose cookie this is. A token that is unknown, ended or expired makes a guest. */
export async function visitorOf(trivet: Trivet, token: string | undefined, now: Date): Promise<Visitor> {
  if (!token || token.length > 100) return guestVisitor;
  const tokenHash = hashToken(token);
  const session = trivet.sessions.get(tokenHash) ?? (await readSession(trivet.db, tokenHash));
  if (!session || session.expiresAt <= now) return guestVisitor;
  if (!trivet.sessions.has(tokenHash)) trivet.rememberSession(session);
  const { passphrases } = session;
  const person = session.person === null ? null : trivet.state.people.get(session.person);
  if (person === undefined) return guestVisitor;
  const facts = person?.facts ?? guest;
  return {
    person,
    facts: passphrases.length === 0 ? facts : { ...facts, passphrases },
    session: tokenHash,
  };
}
