/** Counting attempts in windows of time. */
import { eq, lt, sql } from 'drizzle-orm';
import type { Database } from './database';
import { signInAttempts } from './schema';

/** How many attempts a key has had in its window, this one included, and when the window ends. */
export interface AttemptCount {
  readonly count: number;
  readonly windowEnds: Date;
}

/** Counts one attempt, in one statement, so that attempts at the same moment are all counted. */
export async function countAttempt(
  db: Database,
  key: string,
  now: Date,
  windowMs: number,
): Promise<AttemptCount> {
  const windowEnds = new Date(now.getTime() + windowMs);
  const over = sql`${signInAttempts.windowEnds} <= ${now.toISOString()}::timestamptz`;
  const [row] = await db
    .insert(signInAttempts)
    .values({ key, count: 1, windowEnds })
    .onConflictDoUpdate({
      target: signInAttempts.key,
      set: {
        count: sql`case when ${over} then 1 else ${signInAttempts.count} + 1 end`,
        windowEnds: sql`case when ${over} then excluded.window_ends else ${signInAttempts.windowEnds} end`,
      },
    })
    .returning({ count: signInAttempts.count, windowEnds: signInAttempts.windowEnds });
  if (!row) throw new Error('An attempt was not counted.');
  return row;
}

/** Forgets a key's attempts, and with them every window that is over. */
export async function forgetAttempts(db: Database, key: string, now: Date): Promise<void> {
  await db.delete(signInAttempts).where(eq(signInAttempts.key, key));
  await db.delete(signInAttempts).where(lt(signInAttempts.windowEnds, now));
}

/** Takes one attempt back: it turned out not to be a failure. */
export async function uncountAttempt(db: Database, key: string): Promise<void> {
  await db
    .update(signInAttempts)
    .set({ count: sql`greatest(${signInAttempts.count} - 1, 0)` })
    .where(eq(signInAttempts.key, key));
}
