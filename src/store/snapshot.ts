/**
 * Everybody as memory keeps them, written down: reading that, and what the log of changes tells of since, takes a fraction of
 * what it takes to put everybody together from the tables.
 */
import { createHash } from 'node:crypto';
import { and, desc, eq, isNotNull, ne, sql } from 'drizzle-orm';
import { PgDialect } from 'drizzle-orm/pg-core';
import type { PersonId } from '@/core';
import { readChangesSince } from './changes';
import type { Database } from './database';
import { inOneByte } from './in-one-byte';
import { packedSlice } from './packed-person';
import { changes, snapshots, snapshotTexts } from './schema';
import { newestHere } from './server-checks';

/** Stands between texts, and in no JSON. */
const BETWEEN = '\u001e';
/** So many texts are written or read at once: whoever else asks the database waits for that. */
const AT_ONCE = 32;

/** Of so many entries of the log on, what is written down is written anew. */
const FAR_BEHIND = 10_000;
/** For how long somebody may be in it as they are not any more. */
const LONGEST = sql`interval '1 day'`;

/** How lines are made of tables by this Trivet: of its questions and of its migrations. */
const way = (): string =>
  createHash('sha256')
    .update(`${newestHere()} ${new PgDialect().sqlToQuery(packedSlice('', 1)).sql}`)
    .digest('hex');

export interface Snapshot {
  /** Texts of lines that follow one another, as `readPackedPeople` answers them. */
  readonly texts: Iterable<string>;
  /** Who may not be as they are in it any more. */
  readonly changed: readonly PersonId[];
}

const latestWhole = (db: Database) =>
  db
    .select({ id: snapshots.id, number: sql<number>`${snapshots.number}`, size: snapshots.size })
    .from(snapshots)
    .where(and(isNotNull(snapshots.number), eq(snapshots.way, way())))
    .orderBy(desc(snapshots.id))
    .limit(1);

/** Everybody as they were written down; null where nothing is that could be brought up to now. */
export async function readSnapshot(db: Database): Promise<Snapshot | null> {
  const [found] = await latestWhole(db);
  const since = found && (await readChangesSince(db, found.number));
  if (!since) return null;
  const texts: string[] = [];
  for (let place = 0; texts.length < found.size; place++) {
    const [row] = await db
      .select({ texts: snapshotTexts.texts })
      .from(snapshotTexts)
      .where(and(eq(snapshotTexts.snapshot, found.id), eq(snapshotTexts.place, place)));
    // Another one was written meanwhile.
    if (!row) return null;
    texts.push(...row.texts.split(BETWEEN));
  }
  return { texts: inOneByte(texts), changed: since.people };
}

/** Whether there is no snapshot that one would begin from at a number of the log, or one that is too old. */
export async function isSnapshotOld(db: Database, number: number): Promise<boolean> {
  const [found] = await latestWhole(db);
  if (!found || number - found.number > FAR_BEHIND) return true;
  if (number === found.number) return false;
  const { rows } = await db.execute<{ old: boolean }>(sql`
    select min(number) is distinct from ${found.number}
      or coalesce(bool_or(is_person and id is null), false)
      or coalesce(bool_or(is_person), false)
        and exists (select from ${snapshots} where id = ${found.id} and made < now() - ${LONGEST}) as old
    from (
      select number, id, number > ${found.number} and part = 'people' as is_person from ${changes}
      where number between ${found.number} and ${number}
    ) since`);
  return rows[0]?.old ?? true;
}

/** Forgets every snapshot. */
export async function forgetSnapshots(db: Database): Promise<void> {
  await db.delete(snapshots);
}

/**
 * Writes everybody down as they are at a number of the log, and forgets what was written before. One at a time; where it is
 * broken off, by `goesOn` or by anything else, what was written before stays.
 */
export async function writeSnapshot(
  db: Database,
  number: number,
  texts: readonly string[],
  goesOn: () => boolean = () => true,
): Promise<void> {
  const [begun] = await db
    .insert(snapshots)
    .values({ way: way(), size: texts.length })
    .returning({ id: snapshots.id });
  if (!begun) throw new Error('Nothing was written.');
  for (let at = 0, place = 0; at < texts.length; at += AT_ONCE, place++) {
    if (!goesOn()) return;
    await db
      .insert(snapshotTexts)
      .values({ snapshot: begun.id, place, texts: texts.slice(at, at + AT_ONCE).join(BETWEEN) });
  }
  await db.transaction(async (tx) => {
    await tx.update(snapshots).set({ number }).where(eq(snapshots.id, begun.id));
    await tx.delete(snapshots).where(ne(snapshots.id, begun.id));
  });
}
