/** Sessions, by the hash of their token. */
import { eq, lt } from 'drizzle-orm';
import { asId, type PersonId } from '@/core';
import type { Database } from './database';
import { sessions } from './schema';

/** A session that has not been ended. It may have expired. */
export interface Session {
  readonly tokenHash: string;
  readonly person: PersonId;
  readonly expiresAt: Date;
}

export async function readSession(db: Database, tokenHash: string): Promise<Session | null> {
  const [row] = await db.select().from(sessions).where(eq(sessions.tokenHash, tokenHash));
  return row ? { ...row, person: asId(row.person) } : null;
}

/** Starts a session and clears away those that expired before `now`. */
export async function insertSession(db: Database, session: Session, now: Date): Promise<void> {
  await db.transaction(async (tx) => {
    await tx.delete(sessions).where(lt(sessions.expiresAt, now));
    await tx.insert(sessions).values(session);
  });
}

export async function deleteSession(db: Database, tokenHash: string): Promise<void> {
  await db.delete(sessions).where(eq(sessions.tokenHash, tokenHash));
}
