/** Findings that were set aside. */
import { eq } from 'drizzle-orm';
import type { Database } from './database';
import { setAsides } from './schema';

export type SetAside = typeof setAsides.$inferSelect;

export const readSetAsides = (db: Database): Promise<readonly SetAside[]> =>
  db.select().from(setAsides).orderBy(setAsides.at);

/** Notes that a finding is set aside, in the place of what was noted of it before. */
export async function writeSetAside(db: Database, one: SetAside): Promise<void> {
  const { finding, ...rest } = one;
  await db.insert(setAsides).values(one).onConflictDoUpdate({ target: setAsides.finding, set: rest });
}

export async function deleteSetAside(db: Database, finding: string): Promise<void> {
  await db.delete(setAsides).where(eq(setAsides.finding, finding));
}
