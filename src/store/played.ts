/** What of videos was played. */
import { and, eq } from 'drizzle-orm';
import type { ItemId, PersonId, Ranges } from '@/core';
import type { Database } from './database';
import { played } from './schema';

/**
 * Adds to what somebody has played, whoever else does so meanwhile: `join` makes one list of what there was and what comes.
 * Answers what it is then.
 */
export const addPlayed = (
  db: Database,
  person: PersonId,
  activity: ItemId,
  join: (before: Ranges) => Ranges,
): Promise<Ranges> =>
  db.transaction(async (tx) => {
    await tx.insert(played).values({ person, activity, ranges: [] }).onConflictDoNothing();
    const [row] = await tx
      .select({ ranges: played.ranges })
      .from(played)
      .where(and(eq(played.person, person), eq(played.activity, activity)))
      .for('update');
    const ranges = join(row?.ranges ?? []);
    await tx
      .update(played)
      .set({ ranges })
      .where(and(eq(played.person, person), eq(played.activity, activity)));
    return ranges;
  });
