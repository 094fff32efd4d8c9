/** What was taken in from elsewhere. */
import { desc, eq } from 'drizzle-orm';
import type { Database } from './database';
import { takings } from './schema';

export type Taking = typeof takings.$inferSelect;

export async function insertTaking(db: Database, taking: Omit<Taking, 'undone'>): Promise<void> {
  await db.insert(takings).values(taking);
}

export async function readTaking(db: Database, id: string): Promise<Taking | null> {
  const [row] = await db.select().from(takings).where(eq(takings.id, id));
  return row ?? null;
}

export async function markTakingUndone(db: Database, id: string): Promise<void> {
  await db.update(takings).set({ undone: true }).where(eq(takings.id, id));
}

/** The latest that can be taken back, the newest first. */
export const readTakings = (
  db: Database,
  most: number,
): Promise<readonly Pick<Taking, 'id' | 'at' | 'by' | 'summary'>[]> =>
  db
    .select({ id: takings.id, at: takings.at, by: takings.by, summary: takings.summary })
    .from(takings)
    .where(eq(takings.undone, false))
    .orderBy(desc(takings.at))
    .limit(most);
