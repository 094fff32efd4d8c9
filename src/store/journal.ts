/** The journal: how often visitors were turned away, and what they did next. */
import { and, gte, lt, sql } from 'drizzle-orm';
import type { PersonId } from '@/core';
import type { Database } from './database';
import { journalCounts, journalNames } from './schema';

export type JournalCount = typeof journalCounts.$inferSelect;
export type JournalName = typeof journalNames.$inferSelect;

/** Adds to what is counted already; people who are gone meanwhile are passed over. */
export async function addToJournal(
  db: Database,
  counts: readonly JournalCount[],
  names: readonly (Omit<JournalName, 'person'> & { readonly person: PersonId })[],
): Promise<void> {
  if (counts.length + names.length === 0) return;
  const more = (column: string) => sql.raw(`"journal_counts"."${column}" + excluded."${column}"`);
  await db.transaction(async (tx) => {
    for (const one of counts)
      await tx
        .insert(journalCounts)
        .values(one)
        .onConflictDoUpdate({
          target: [
            journalCounts.day,
            journalCounts.item,
            journalCounts.gate,
            journalCounts.given,
            journalCounts.visitor,
          ],
          set: {
            count: more('count'),
            left: more('left'),
            signedIn: more('signed_in'),
            signedUp: more('signed_up'),
            gotIn: more('got_in'),
          },
        });
    for (const { day, item, gate, person, count } of names)
      await tx.execute(
        sql`insert into journal_names (day, item, gate, person, count)
          select ${day}::date, ${item}, ${gate}, id, ${count} from people where id = ${person}
          on conflict (day, item, gate, person) do update set count = journal_names.count + excluded.count`,
      );
  });
}

/** What was counted from a day on. */
export const readJournal = (db: Database, from: string): Promise<readonly JournalCount[]> =>
  db.select().from(journalCounts).where(gte(journalCounts.day, from));

export const readJournalNames = (db: Database, from: string): Promise<readonly JournalName[]> =>
  db.select().from(journalNames).where(gte(journalNames.day, from));

/** Forgets what is older than a day; names altogether where none are to be kept. */
export async function forgetJournal(db: Database, before: string, names: boolean): Promise<void> {
  await db.transaction(async (tx) => {
    await tx.delete(journalCounts).where(lt(journalCounts.day, before));
    await tx.delete(journalNames).where(names ? and(lt(journalNames.day, before)) : undefined);
  });
}
