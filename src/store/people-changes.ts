/** The record of changes of people and of the names that describe them. */
import { and, desc, eq, getTableColumns, lt, or, sql } from 'drizzle-orm';
import type { KeptNames } from '@/core';
import type { Database } from './database';
import { inOrder, type PersonRecord } from './person-record';
import { putting } from './putting';
import { peopleChanges } from './schema';
import type { Hashes, PeopleChange } from './types';

/** A change with both sides of everything it touched. */
export interface RecordedChange {
  readonly id: string;
  readonly by: string;
  readonly summary: string;
  /** In the words of whoever made it; may be empty. */
  readonly why: string;
  readonly people: readonly PeopleChange[];
  readonly names: { readonly before: KeptNames; readonly after: KeptNames } | null;
  readonly hashes: Hashes;
  readonly undone: boolean;
}

const putChanges = putting(peopleChanges, [
  'id',
  'at',
  'by',
  'summary',
  'why',
  'people',
  'names',
  'hashes',
  'undone',
]);

export async function insertChange(db: Database, change: RecordedChange, at: Date): Promise<void> {
  await putChanges(db, [{ ...change, at }]);
}

export async function readChange(db: Database, id: string): Promise<RecordedChange | null> {
  const [row] = await db.select().from(peopleChanges).where(eq(peopleChanges.id, id));
  return row ? { ...row, people: row.people.map(wholeChange) } : null;
}

/** Changes from before there were several rights at the desk, and from before it was kept since when people are in groups. */
const wholeChange = ({ before, after }: PeopleChange): PeopleChange => ({
  before: before && wholeRecord(before),
  after: after && wholeRecord(after),
});

function wholeRecord(record: PersonRecord): PersonRecord {
  const desk = record.desk as PersonRecord['desk'] | boolean;
  return {
    ...record,
    ...inOrder(record),
    groupsSince: record.groupsSince ?? {},
    desk: typeof desk === 'boolean' ? (desk ? { right: 'owner', branch: null } : null) : desk,
  };
}

export async function markUndone(db: Database, id: string): Promise<void> {
  await db.update(peopleChanges).set({ undone: true }).where(eq(peopleChanges.id, id));
}

/** Changes with what they did, newest first: all, or those that touched one person. */
export async function readChanges(
  db: Database,
  {
    person,
    before,
    most,
  }: { readonly person: string | null; readonly before: Date | null; readonly most: number },
): Promise<readonly (Omit<RecordedChange, 'hashes'> & { readonly at: Date })[]> {
  const { hashes: _, ...columns } = getTableColumns(peopleChanges);
  const side = (name: 'before' | 'after') =>
    sql`${peopleChanges.people} @> ${JSON.stringify([{ [name]: { id: person } }])}::jsonb`;
  const rows = await db
    .select(columns)
    .from(peopleChanges)
    .where(
      and(
        before === null ? undefined : lt(peopleChanges.at, before),
        person === null ? undefined : or(side('before'), side('after')),
      ),
    )
    .orderBy(desc(peopleChanges.at))
    .limit(most);
  return rows.map((row) => ({ ...row, people: row.people.map(wholeChange) }));
}

/** The latest changes without their contents, newest first. */
export async function readLatestChanges(
  db: Database,
  most: number,
): Promise<
  readonly {
    readonly id: string;
    readonly at: Date;
    readonly by: string;
    readonly summary: string;
    readonly undone: boolean;
  }[]
> {
  return db
    .select({
      id: peopleChanges.id,
      at: peopleChanges.at,
      by: peopleChanges.by,
      summary: peopleChanges.summary,
      undone: peopleChanges.undone,
    })
    .from(peopleChanges)
    .orderBy(desc(peopleChanges.at))
    .limit(most);
}
