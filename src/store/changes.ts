/**
 * The log of changes, read. Triggers write it in the transaction of a change, with a growing number; whoever knows the site
 * as it was at a number reads what is not so any more.
 */
import { lt, max, sql } from 'drizzle-orm';
import { asId, type ItemId, type PersonId } from '@/core';
import type { Database } from './database';
import { changes } from './schema';

/** What is told of one by one. */
const NAMED = ['people', 'items', 'sessions', 'keys'] as const;
type Named = (typeof NAMED)[number];
type Part = Exclude<(typeof changes.$inferSelect)['part'], Named>;

const isNamed = (part: Named | Part): part is Named => (NAMED as readonly string[]).includes(part);

/** What has changed. */
export interface Changes {
  /** Up to which number of the log. */
  readonly number: number;
  readonly people: readonly PersonId[];
  readonly items: readonly ItemId[];
  /** The hashes of sessions that ended, or are others than they were. */
  readonly sessions: readonly string[];
  /** The hashes of keys that were taken back. */
  readonly keys: readonly string[];
  readonly parts: ReadonlySet<Part>;
}

/** Of so many things that changed one after the other is read; of more, everything. */
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
  // With every change: put together as text, it takes a third of what the query builder takes.
  const { rows } = await db.execute<{
    readonly part: Named | Part;
    readonly id: string | null;
    readonly first: number;
    readonly last: number;
  }>(sql`
    select part, id, min(number)::int8 as first, max(number)::int8 as last from changes
    where number >= ${known} group by part, id limit ${MOST_ENTRIES + 1}`);
  if (rows.length === 0 && known === 0)
    return { number: 0, people: [], items: [], sessions: [], keys: [], parts: new Set() };
  // What is known last is kept; where it is gone, entries after it may be gone as well.
  const first = rows.reduce((least, row) => Math.min(least, Number(row.first)), Number.POSITIVE_INFINITY);
  if (first !== Math.max(known, 1) || rows.length > MOST_ENTRIES) return null;
  const named: Record<Named, string[]> = { people: [], items: [], sessions: [], keys: [] };
  const parts = new Set<Part>();
  let latest = known;
  for (const { part, id, last } of rows) {
    if (Number(last) === known) continue;
    latest = Math.max(latest, Number(last));
    if (!isNamed(part)) parts.add(part);
    else if (id === null) return null;
    else named[part].push(id);
  }
  return {
    ...named,
    number: latest,
    people: named.people.map((id) => asId<PersonId>(id)),
    items: named.items.map((id) => asId<ItemId>(id)),
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
