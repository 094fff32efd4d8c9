/** Walks under way, by the hash of their token. */
import { and, eq, gt, lt } from 'drizzle-orm';
import type { Database } from './database';
import { walks } from './schema';

export type Walk = typeof walks.$inferSelect;

/** A walk that belongs to this session and has not expired. */
export async function readWalk(
  db: Database,
  tokenHash: string,
  session: string,
  now: Date,
): Promise<Walk | null> {
  const [row] = await db
    .select()
    .from(walks)
    .where(and(eq(walks.tokenHash, tokenHash), eq(walks.session, session), gt(walks.expiresAt, now)));
  return row ?? null;
}

/** Starts a walk and clears away those that expired before `now`. */
export async function insertWalk(db: Database, walk: Walk, now: Date): Promise<void> {
  await db.transaction(async (tx) => {
    await tx.delete(walks).where(lt(walks.expiresAt, now));
    await tx.insert(walks).values(walk);
  });
}
