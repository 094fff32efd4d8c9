/** The outbox: letters with what has become of them. */
import { and, desc, eq, sql } from 'drizzle-orm';
import type { Database } from './database';
import { outbox } from './schema';

export type Mail = typeof outbox.$inferSelect;

type NewMail = Pick<Mail, 'to' | 'subject' | 'text' | 'at'> & Partial<Pick<Mail, 'replyTo' | 'goodUntil'>>;

// Letters are written in slices of this many.
const SLICE = 500;

export async function putIntoOutbox(db: Database, ...mail: readonly NewMail[]): Promise<void> {
  for (let at = 0; at < mail.length; at += SLICE)
    await db.insert(outbox).values(mail.slice(at, at + SLICE).map((one) => ({ ...one, nextTry: one.at })));
}

/** How many letters were tried in vain and wait to be tried again. */
export async function countTriedLetters(db: Database): Promise<number> {
  const [row] = await db
    .select({ count: sql<number>`count(*)::int` })
    .from(outbox)
    .where(and(eq(outbox.state, 'waiting'), sql`${outbox.tries} > 0`, sql`${outbox.problem} <> ''`));
  return row?.count ?? 0;
}

/** The latest letters, the newest first. */
export const readOutbox = (db: Database, most: number): Promise<readonly Mail[]> =>
  db.select().from(outbox).orderBy(desc(outbox.id)).limit(most);

/**
 * Takes letters that are due, each of them counted as tried. Nobody else takes them until the lease is over, so that one
 * whose sender was killed is tried again.
 */
export async function takeDueLetters(
  db: Database,
  now: Date,
  most: number,
  leaseMs: number,
): Promise<readonly Mail[]> {
  const taken = await db
    .update(outbox)
    .set({ tries: sql`${outbox.tries} + 1`, nextTry: new Date(now.getTime() + leaseMs) })
    .where(
      sql`${outbox.id} in (
        select id from ${outbox}
        where state = 'waiting' and next_try <= ${now.toISOString()}::timestamptz
        order by next_try, id limit ${most} for update skip locked
      )`,
    )
    .returning();
  return taken.toSorted((a, b) => a.id - b.id);
}

/** Notes what has become of a letter that was taken; nothing where it has been asked for again meanwhile. */
export async function noteDelivery(
  db: Database,
  { id, tries }: Pick<Mail, 'id' | 'tries'>,
  became: Partial<Pick<Mail, 'state' | 'sentAt' | 'nextTry' | 'problem'>>,
): Promise<void> {
  await db
    .update(outbox)
    .set(became)
    .where(and(eq(outbox.id, id), eq(outbox.tries, tries), eq(outbox.state, 'waiting')));
}

/** Where no mail is set up, nothing waits: so that setting it up sends nothing that is long over. */
export async function keepWaitingLetters(db: Database): Promise<void> {
  await db.update(outbox).set({ state: 'kept' }).where(eq(outbox.state, 'waiting'));
}

/** Lets a letter be sent, whatever has become of it; answers whether there is such a letter. */
export async function sendLetterAgain(db: Database, id: number, now: Date): Promise<boolean> {
  const rows = await db
    .update(outbox)
    .set({ state: 'waiting', tries: 0, nextTry: now, problem: '', sentAt: null })
    .where(eq(outbox.id, id))
    .returning({ id: outbox.id });
  return rows.length > 0;
}
