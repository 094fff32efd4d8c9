/**
 * The log of changes, read. Triggers write it in the transaction of a change, with a growing number; whoever knows the site
 * as it was at a number reads what is not so any more.
 */
import { asc, gte, lt, max, sql } from 'drizzle-orm';
import { asId, type ItemId, type PersonId } from '@/core';
import type { Database } from './database';
import { changes } from './schema';

type Part = Exclude<(typeof changes.$inferSelect)['part'], 'people' | 'items'>;

/** What has changed. */
export interface Changes {
  /** Up to which number of the log. */
  readonly number: number;
  readonly people: readonly PersonId[];
  readonly items: readonly ItemId[];
  readonly parts: ReadonlySet<Part>;
}

/** From so many entries on it takes less to read everything. */
const MOST_ENTRIES = 20_000;
/** How many entries are kept for those who come after. */
const KEPT_ENTRIES = 10_000;

/** The number of the latest entry; 0 where there is none. */
export async function lastChange(db: Database): Promise<number> {
  const [row] = await db.select({ number: max(changes.number) }).from(changes);
  return row?.number ?? 0;
}

/** What has changed since a number; null where that can't be told, because it is too much or too long ago. */
export async function readChangesSince(db: Database, known: number): Promise<Changes | null> {
  const rows = await db
    .select()
    .from(changes)
    .where(gte(changes.number, known))
    .orderBy(asc(changes.number))
    .limit(MOST_ENTRIES + 1);
  const [first] = rows;
  if (first === undefined && known === 0) return { number: 0, people: [], items: [], parts: new Set() };
  // What is known last is kept; where it is gone, entries after it may be gone as well.
  if (first?.number !== Math.max(known, 1) || rows.length > MOST_ENTRIES) return null;
  const people = new Set<string>();
  const items = new Set<string>();
  const parts = new Set<Part>();
  for (const { number, part, id } of rows) {
    if (number === known) continue;
    if (part !== 'people' && part !== 'items') parts.add(part);
    else if (id === null) return null;
    else (part === 'people' ? people : items).add(id);
  }
  return {
    number: rows.at(-1)?.number ?? known,
    people: [...people].map((id) => asId<PersonId>(id)),
    items: [...items].map((id) => asId<ItemId>(id)),
    parts,
  };
}

/** Notes that everything is changed by the transaction that goes on, so that nothing else has to be noted in it. */
export async function noteEverything(tx: Database): Promise<void> {
  await tx.insert(changes).values({ part: 'people' });
  await tx.execute(sql`select set_config('trivet.noted', 'everything', true)`);
}

/** Forgets what everybody knows by now. */
export async function forgetChanges(db: Database, known: number): Promise<void> {
  await db.delete(changes).where(lt(changes.number, known - KEPT_ENTRIES));
}
