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
const MOST_NAMED = 20_000;
/** How many entries are kept for those who come after. */
const KEPT_ENTRIES = 50_000;
/** So many are read at most, which is more than are kept. */
const MOST_ENTRIES = 2 * KEPT_ENTRIES;
/** After every number there is. Without an end, the embedded database would look through all of the log for the little that is new. */
const LAST = Number.MAX_SAFE_INTEGER;

/** The number of the latest entry; 0 where there is none. */
export async function lastChange(db: Database): Promise<number> {
  const [row] = await db.select({ number: max(changes.number) }).from(changes);
  return row?.number ?? 0;
}

/** What has changed since a number; null where that can't be told, because it is too much or too long ago. */
export async function readChangesSince(db: Database, known: number): Promise<Changes | null> {
  // With every change: put together as text, it takes a third of what the query builder takes.
  const { rows } = await db.execute<{
    readonly number: number;
    readonly part: Named | Part;
    readonly id: string | null;
  }>(
    sql`select number, part, id from changes where number between ${known} and ${LAST} limit ${MOST_ENTRIES}`,
  );
  const named: Record<Named, Set<string>> = {
    people: new Set(),
    items: new Set(),
    sessions: new Set(),
    keys: new Set(),
  };
  const parts = new Set<Part>();
  let [first, latest] = [Number.POSITIVE_INFINITY, known];
  for (const { part, id, ...row } of rows) {
    const number = Number(row.number);
    first = Math.min(first, number);
    if (number === known) continue;
    latest = Math.max(latest, number);
    if (!isNamed(part)) parts.add(part);
    else if (id === null) return null;
    else named[part].add(id);
  }
  // What is known last is kept; where it is gone, entries after it may be gone as well. Where nothing is known, nothing was.
  const isWhole = rows.length === 0 ? known === 0 : first === Math.max(known, 1);
  const size = Object.values(named).reduce((sum, { size }) => sum + size, 0);
  if (!isWhole || size > MOST_NAMED || rows.length === MOST_ENTRIES) return null;
  return {
    number: latest,
    people: [...named.people].map((id) => asId<PersonId>(id)),
    items: [...named.items].map((id) => asId<ItemId>(id)),
    sessions: [...named.sessions],
    keys: [...named.keys],
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
