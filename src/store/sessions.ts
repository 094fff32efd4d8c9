/** Sessions, by the hash of their token. */
import { eq, lt, sql } from 'drizzle-orm';
import { asId, type PassphraseId, type PersonId } from '@/core';
import type { Database } from './database';
import { sessions } from './schema';

/** A session that has not been ended. It may have expired. */
export interface Session {
  readonly tokenHash: string;
  /** Null for a guest who typed a passphrase. */
  readonly person: PersonId | null;
  readonly passphrases: readonly PassphraseId[];
  readonly expiresAt: Date;
}

export async function readSession(db: Database, tokenHash: string): Promise<Session | null> {
  const [row] = await db.select().from(sessions).where(eq(sessions.tokenHash, tokenHash));
  if (!row) return null;
  return {
    ...row,
    person: row.person === null ? null : asId<PersonId>(row.person),
    passphrases: row.passphrases.map((id) => asId(id)),
  };
}

/** Starts a session and clears away those that expired before `now`. */
export async function insertSession(db: Database, session: Session, now: Date): Promise<void> {
  await db.transaction(async (tx) => {
    await tx.delete(sessions).where(lt(sessions.expiresAt, now));
    await tx.insert(sessions).values(session);
  });
}

/** Keeps the passphrases that were typed in a session. */
export async function setPassphrases(
  db: Database,
  tokenHash: string,
  passphrases: readonly PassphraseId[],
): Promise<void> {
  await db.update(sessions).set({ passphrases }).where(eq(sessions.tokenHash, tokenHash));
}

/** Takes a passphrase out of every session in which it was typed: other words are typed for it now. */
export async function forgetPassphrase(db: Database, passphrase: PassphraseId): Promise<void> {
  await db
    .update(sessions)
    .set({ passphrases: sql`${sessions.passphrases} - ${passphrase}::text` })
    .where(sql`${sessions.passphrases} @> ${JSON.stringify([passphrase])}::jsonb`);
}

/** Ends every session of somebody. */
export async function deleteSessionsOf(db: Database, person: PersonId): Promise<void> {
  await db.delete(sessions).where(eq(sessions.person, person));
}

/** Lets every session last so many seconds longer. */
export async function extendSessions(db: Database, seconds: number): Promise<void> {
  await db.update(sessions).set({ expiresAt: sql`${sessions.expiresAt} + ${seconds} * interval '1 second'` });
}

export async function deleteSession(db: Database, tokenHash: string): Promise<void> {
  await db.delete(sessions).where(eq(sessions.tokenHash, tokenHash));
}
