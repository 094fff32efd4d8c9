/** Items that were taken away and can be brought back. */
import { desc, eq } from 'drizzle-orm';
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

export async function readRemoval(db: Database, id: string): Promise<Removal | null> {
  const [row] = await db.select().from(removals).where(eq(removals.id, id));
  return row ?? null;
}

export async function markRemovalUndone(db: Database, id: string): Promise<void> {
  await db.update(removals).set({ undone: true }).where(eq(removals.id, id));
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
