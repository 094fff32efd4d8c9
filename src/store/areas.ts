/** What was done to areas, and when they were last opened. */
import { desc, eq, sql } from 'drizzle-orm';
import { asId, type ItemId } from '@/core';
import type { Database } from './database';
import { areaSteps, areaVisits } from './schema';
import type { AreaStep } from './types';

/** A step that was made. */
export interface AreaStepMade {
  readonly id: string;
  readonly at: Date;
  readonly by: string;
  readonly summary: string;
  readonly undone: boolean;
}

export async function insertAreaStep(
  db: Database,
  step: Omit<AreaStepMade, 'undone'> & { readonly step: AreaStep },
): Promise<void> {
  await db.insert(areaSteps).values(step);
}

export async function readAreaStep(
  db: Database,
  id: string,
): Promise<(AreaStepMade & { readonly step: AreaStep }) | null> {
  const [row] = await db.select().from(areaSteps).where(eq(areaSteps.id, id));
  return row ?? null;
}

export async function markAreaStepUndone(db: Database, id: string): Promise<void> {
  await db.update(areaSteps).set({ undone: true }).where(eq(areaSteps.id, id));
}

/** The latest steps that can be taken back, the newest first. */
export const readAreaSteps = (db: Database, most: number): Promise<readonly AreaStepMade[]> =>
  db
    .select({
      id: areaSteps.id,
      at: areaSteps.at,
      by: areaSteps.by,
      summary: areaSteps.summary,
      undone: areaSteps.undone,
    })
    .from(areaSteps)
    .where(eq(areaSteps.undone, false))
    .orderBy(desc(areaSteps.at))
    .limit(most);

/** The last day on which each area was opened by one of its people. */
export const readAreaVisits = async (db: Database): Promise<ReadonlyMap<ItemId, string>> =>
  new Map((await db.select().from(areaVisits)).map(({ page, on }) => [asId<ItemId>(page), on]));

/** Notes days on which areas were opened; an earlier day changes nothing. */
export async function noteAreaVisits(db: Database, days: ReadonlyMap<ItemId, string>): Promise<void> {
  if (days.size === 0) return;
  await db
    .insert(areaVisits)
    .values([...days].map(([page, on]) => ({ page, on })))
    .onConflictDoUpdate({
      target: areaVisits.page,
      set: { on: sql`greatest(${areaVisits.on}, excluded."on")` },
    });
}

export async function forgetAreaVisits(db: Database): Promise<void> {
  await db.delete(areaVisits);
}
