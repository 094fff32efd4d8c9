/** What learners handed in, with what their tutors said of it. */
import { and, asc, count, desc, eq, inArray, sql } from 'drizzle-orm';
import { asId, type HandInState, type ItemId, type PersonId } from '@/core';
import type { Database } from './database';
import { handInFiles, handIns } from './schema';

export interface HandIn {
  readonly id: string;
  readonly person: PersonId;
  readonly activity: ItemId;
  /** Counted from 1. */
  readonly version: number;
  readonly text: string;
  readonly at: Date;
  readonly state: HandInState;
  /** A percentage, where a tutor gave one. */
  readonly score: number | null;
  /** What a tutor said, who they were and when; nothing while it waits. */
  readonly words: string;
  readonly by: string;
  readonly judged: Date | null;
}

/** A file that was handed in, without what it holds. */
export interface HandedFile {
  readonly id: string;
  readonly handIn: string;
  readonly name: string;
  readonly mediaType: string;
  /** In bytes. */
  readonly size: number;
}

const idsIn = (row: typeof handIns.$inferSelect): HandIn => ({
  ...row,
  person: asId<PersonId>(row.person),
  activity: asId<ItemId>(row.activity),
});

/** What somebody handed in to some activities, the first version of each first. */
export async function readHandIns(
  db: Database,
  person: PersonId,
  activities: readonly ItemId[],
): Promise<readonly HandIn[]> {
  if (activities.length === 0) return [];
  const rows = await db
    .select()
    .from(handIns)
    .where(and(eq(handIns.person, person), inArray(handIns.activity, [...activities])))
    .orderBy(asc(handIns.version));
  return rows.map(idsIn);
}

export async function readHandIn(db: Database, id: string): Promise<HandIn | null> {
  const [row] = await db.select().from(handIns).where(eq(handIns.id, id));
  return row ? idsIn(row) : null;
}

/** What waits for a tutor in some activities, the longest first, and how much that is in all. */
export async function readWaiting(
  db: Database,
  activities: readonly ItemId[],
  most: number,
): Promise<{ readonly list: readonly HandIn[]; readonly count: number }> {
  if (activities.length === 0) return { list: [], count: 0 };
  const waits = and(inArray(handIns.activity, [...activities]), eq(handIns.state, 'waiting'));
  const rows = await db.select().from(handIns).where(waits).orderBy(asc(handIns.at)).limit(most);
  const [all] = await db.select({ count: count() }).from(handIns).where(waits);
  return { list: rows.map(idsIn), count: all?.count ?? 0 };
}

/** The state of the last version of everybody who handed something in to one of these activities. */
export async function readHandInStates(
  db: Database,
  activities: readonly ItemId[],
): Promise<readonly Pick<HandIn, 'person' | 'activity' | 'state'>[]> {
  if (activities.length === 0) return [];
  const { person, activity, state } = handIns;
  const rows = await db
    .selectDistinctOn([person, activity], { person, activity, state })
    .from(handIns)
    .where(inArray(activity, [...activities]))
    .orderBy(person, activity, desc(handIns.version));
  return rows.map((row) => ({
    ...row,
    person: asId<PersonId>(row.person),
    activity: asId<ItemId>(row.activity),
  }));
}

/**
 * Puts a new version in the place of one that still waits. False when there is one with this number already: somebody did the
 * same at the same time. Belongs in a transaction.
 */
export async function insertHandIn(
  db: Database,
  handIn: HandIn,
  files: readonly (Omit<HandedFile, 'handIn'> & { readonly bytes: Uint8Array })[],
): Promise<boolean> {
  await db
    .update(handIns)
    .set({ state: 'replaced' })
    .where(
      and(
        eq(handIns.person, handIn.person),
        eq(handIns.activity, handIn.activity),
        eq(handIns.state, 'waiting'),
      ),
    );
  const rows = await db.insert(handIns).values(handIn).onConflictDoNothing().returning({ id: handIns.id });
  if (rows.length === 0) return false;
  if (files.length > 0)
    await db.insert(handInFiles).values(files.map((file, rank) => ({ ...file, handIn: handIn.id, rank })));
  return true;
}

/** Notes what a tutor said of a version that waits; false when it no longer does. */
export async function judgeHandIn(
  db: Database,
  { id, state, score, words, by, judged }: Pick<HandIn, 'id' | 'state' | 'score' | 'words' | 'by' | 'judged'>,
): Promise<boolean> {
  const rows = await db
    .update(handIns)
    .set({ state, score, words, by, judged })
    .where(and(eq(handIns.id, id), eq(handIns.state, 'waiting')))
    .returning({ id: handIns.id });
  return rows.length > 0;
}

/** The files of some hand-ins, in their order, without what they hold. */
export async function readHandedFiles(
  db: Database,
  list: readonly { readonly id: string }[],
): Promise<readonly HandedFile[]> {
  if (list.length === 0) return [];
  const { id, handIn, name, mediaType, size } = handInFiles;
  return db
    .select({ id, handIn, name, mediaType, size })
    .from(handInFiles)
    .where(
      inArray(
        handIn,
        list.map((one) => one.id),
      ),
    )
    .orderBy(asc(handInFiles.rank));
}

/** A file that was handed in, with whose it is. */
export async function readHandedFile(
  db: Database,
  id: string,
): Promise<
  | (HandedFile & {
      readonly person: PersonId;
      readonly activity: ItemId;
      readonly bytes: Uint8Array;
    })
  | null
> {
  const [row] = await db
    .select({ file: handInFiles, person: handIns.person, activity: handIns.activity })
    .from(handInFiles)
    .innerJoin(handIns, eq(handIns.id, handInFiles.handIn))
    .where(eq(handInFiles.id, id));
  return row
    ? { ...row.file, person: asId<PersonId>(row.person), activity: asId<ItemId>(row.activity) }
    : null;
}

/** How many bytes somebody's files take up in all. */
export async function handedBytesOf(db: Database, person: PersonId): Promise<number> {
  const [row] = await db
    .select({ bytes: sql<number>`coalesce(sum(${handInFiles.size}), 0)::float8` })
    .from(handInFiles)
    .innerJoin(handIns, eq(handIns.id, handInFiles.handIn))
    .where(eq(handIns.person, person));
  return row?.bytes ?? 0;
}
