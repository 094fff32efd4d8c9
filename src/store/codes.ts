/** Codes that were sent by mail and wait to be typed. */
import { eq, inArray, lte, sql } from 'drizzle-orm';
import type { Database } from './database';
import { codes } from './schema';

export type Code = typeof codes.$inferSelect;
export type NewCode = typeof codes.$inferInsert;

/** Writes a code, in place of the one with the same token; those that are over go. */
export async function writeCode(db: Database, code: NewCode, now: Date): Promise<void> {
  await db.transaction(async (tx) => {
    await tx.delete(codes).where(lte(codes.expiresAt, now));
    await tx.insert(codes).values(code).onConflictDoUpdate({ target: codes.tokenHash, set: code });
  });
}

export async function readCode(db: Database, tokenHash: string): Promise<Code | null> {
  const [row] = await db.select().from(codes).where(eq(codes.tokenHash, tokenHash));
  return row ?? null;
}

/** Counts an attempt before it is looked at, so that many at once can't outrun the limit. Answers how many there were. */
export async function countCodeAttempt(db: Database, tokenHash: string): Promise<number> {
  const [row] = await db
    .update(codes)
    .set({ attempts: sql`${codes.attempts} + 1` })
    .where(eq(codes.tokenHash, tokenHash))
    .returning({ attempts: codes.attempts });
  return row?.attempts ?? Number.POSITIVE_INFINITY;
}

/** Takes a code away. Answers whether it was there: of two who use it at once, one does. */
export async function deleteCode(db: Database, tokenHash: string): Promise<boolean> {
  return (await db.delete(codes).where(eq(codes.tokenHash, tokenHash)).returning()).length > 0;
}

/** Takes away the codes that were sent to some mail addresses: what they were for is no longer theirs. */
export async function deleteCodesTo(db: Database, emails: readonly string[]): Promise<void> {
  if (emails.length > 0) await db.delete(codes).where(inArray(codes.email, [...emails]));
}
