/** Items that were taken away and can be brought back. */
import { and, desc, eq } from 'drizzle-orm';
import type { Database } from './database';
import { removals } from './schema';
import type { RemovedItems } from './types';

export type Removal = typeof removals.$inferSelect;

export async function insertRemoval(
  db: Database,
  removal: {
    readonly id: string;
    readonly by: string;
    readonly summary: string;
    readonly removed: RemovedItems;
  },
): Promise<void> {
  await db.insert(removals).values(removal);
}

/** Marks a removal as taken back and answers it; null when there is none, or it has been taken back. */
export async function takeRemovalBack(db: Database, id: string): Promise<Removal | null> {
  const [row] = await db
    .update(removals)
    .set({ undone: true })
    .where(and(eq(removals.id, id), eq(removals.undone, false)))
    .returning();
  return row ?? null;
}

/** The latest removals that can be taken back, the newest first. */
export const readRemovals = (db: Database, most: number): Promise<readonly Omit<Removal, 'removed'>[]> =>
  db
    .select({
      id: removals.id,
      at: removals.at,
      by: removals.by,
      summary: removals.summary,
      undone: removals.undone,
    })
    .from(removals)
    .where(eq(removals.undone, false))
    .orderBy(desc(removals.at))
    .limit(most);
