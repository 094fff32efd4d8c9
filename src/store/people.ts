/** People, read and written many at once. */
import { and, count, eq, inArray, isNull, type SQL, sql } from 'drizzle-orm';
import type { PgColumn } from 'drizzle-orm/pg-core';
import { asId, type ItemId, LINES_IN_A_LIST, linesOf, mergedRuns, type PersonId, same } from '@/core';
import { noteEverything } from './changes';
import type { Database } from './database';
import { inOneByte } from './in-one-byte';
import { byName, packedSlice, type Slice, unpackPerson } from './packed-person';
import type { PersonRecord } from './person-record';
import { putting } from './putting';
import { completions, enrolments, people, personGroups, personRoles, purchases } from './schema';
import { slices } from './slices';
import type { PeopleChange } from './types';

/** So many at once are told of as a change of everything: whoever reads them one by one takes longer. */
const MANY = 20_000;

/** So many are read at once: whoever else asks the database waits for that. */
const AT_ONCE = 10_000;

/**
 * Everybody in the order of their names, as texts of lines (`packedPeople`), of {@link LINES_IN_A_LIST} each. They are read
 * by their ids, so many at once; where somebody is changed meanwhile, they may be as they were or as they are.
 */
export async function readPackedPeople(db: Database, atOnce = AT_ONCE): Promise<Iterable<string>> {
  const runs: string[] = [];
  for (let after: string | null = ''; after !== null; ) {
    const slice: Slice = await readPackedSlice(db, after, atOnce);
    runs.push(slice.text ?? '');
    after = slice.last;
  }
  return inOneByte(mergedRuns(runs, byName, LINES_IN_A_LIST));
}

/** So many whose ids come after one. */
export async function readPackedSlice(db: Database, after: string, many: number): Promise<Slice> {
  const { rows } = await db.execute<Slice>(packedSlice(after, many));
  return rows[0] ?? { text: null, last: null };
}

/** Everybody, in the order of their names. */
export async function readPeople(db: Database): Promise<readonly PersonRecord[]> {
  const found: PersonRecord[] = [];
  for (const text of await readPackedPeople(db)) found.push(...linesOf(text).map(unpackPerson));
  return found;
}

export async function countPeople(db: Database): Promise<number> {
  const [row] = await db.select({ count: count() }).from(people);
  return row?.count ?? 0;
}

/** What signing in needs of an account, or undefined when there is none with that address. */
export async function findCredentials(
  db: Database,
  email: string,
): Promise<{ readonly person: PersonId; readonly passwordHash: string | null } | undefined> {
  const [row] = await db
    .select({ id: people.id, passwordHash: people.passwordHash })
    .from(people)
    .where(eq(people.email, email));
  return row && { person: asId(row.id), passwordHash: row.passwordHash };
}

/**
 * Writes what changed of people, of new ones and of those there were; their passwords stay as they are. What is to be there
 * is there afterwards, whoever wrote it meanwhile. Whoever is gone is not taken away here. Belongs in a transaction.
 */
export async function writePeople(db: Database, changes: readonly PeopleChange[]): Promise<void> {
  if (changes.length > MANY) await noteEverything(db);
  // An address that somebody leaves may be another's in the same change; for a moment nobody has it.
  const leaving = changes.flatMap(({ before, after }) =>
    before && after && before.email !== after.email ? [after.id] : [],
  );
  if (changes.length > 1)
    for (const ids of slices(leaving))
      await db
        .update(people)
        .set({ email: sql`'~' || ${people.id}` })
        .where(inArray(people.id, ids));
  await putPeople(
    db,
    changes.flatMap(({ before, after }) =>
      after && !same(before && ownRow(before), ownRow(after)) ? [ownRow(after)] : [],
    ),
  );
  await rewrite(
    changes,
    (one) => one.roles.map((role) => ({ person: one.id, role })),
    (rows) => db.delete(personRoles).where(isOneOf(personRoles.person, personRoles.role, rows, 'role')),
    (rows) => putRoles(db, rows),
  );
  await rewrite(
    changes,
    ({ id, groups, groupsSince }) =>
      groups.map((group) => ({ person: id, group, since: groupsSince[group] ?? null })),
    (rows) => db.delete(personGroups).where(isOneOf(personGroups.person, personGroups.group, rows, 'group')),
    (rows) => putGroups(db, rows),
  );
  await rewrite(
    changes,
    (one) => one.enrolments.map((row) => ({ person: one.id, ...row })),
    (rows) => db.delete(enrolments).where(isOneOf(enrolments.person, enrolments.course, rows, 'course')),
    (rows) => putEnrolments(db, rows),
  );
  await rewrite(
    changes,
    (one) => one.completions.map((row) => ({ person: one.id, ...row })),
    (rows) => db.delete(completions).where(isOneOf(completions.person, completions.item, rows, 'item')),
    (rows) => putCompletions(db, rows),
  );
  // Purchases have no key of their own, and stand in their order.
  const bought = changes.filter(
    ({ before, after }) => !same(before?.purchases ?? [], after?.purchases ?? []),
  );
  for (const slice of slices(bought.flatMap(({ before }) => before?.id ?? [])))
    await db.delete(purchases).where(inArray(purchases.person, slice));
  await putPurchases(
    db,
    bought.flatMap(({ after }) => after?.purchases.map((row) => ({ person: after.id, ...row })) ?? []),
  );
}

const putPeople = putting(
  people,
  ['id', 'email', 'name', 'deskRight', 'deskBranch', 'level', 'profile', 'joined'],
  ['id'],
);
const putRoles = putting(personRoles, ['person', 'role'], ['person', 'role']);
const putGroups = putting(personGroups, ['person', 'group', 'since'], ['person', 'group']);
const putEnrolments = putting(enrolments, ['person', 'course', 'on', 'until'], ['person', 'course']);
const putCompletions = putting(completions, ['person', 'item', 'on', 'score'], ['person', 'item']);
const putPurchases = putting(purchases, ['person', 'product', 'on', 'until', 'state']);

const ownRow = ({ id, email, name, desk, level, profile, joined }: PersonRecord) => ({
  id,
  email,
  name,
  deskRight: desk?.right ?? null,
  deskBranch: desk?.branch ?? null,
  level,
  profile,
  joined,
});

/** Takes away the rows of people that are not to be there any more as they were, and puts those that are. */
async function rewrite<R extends object>(
  changes: readonly PeopleChange[],
  rowsOf: (person: PersonRecord) => readonly R[],
  remove: (rows: R[]) => PromiseLike<unknown>,
  put: (rows: R[]) => PromiseLike<unknown>,
): Promise<void> {
  const gone: R[] = [];
  const come: R[] = [];
  for (const { before, after } of changes) {
    if (!after) continue;
    const was = new Map(before ? rowsOf(before).map((row) => [JSON.stringify(row), row]) : []);
    for (const row of rowsOf(after)) if (!was.delete(JSON.stringify(row))) come.push(row);
    gone.push(...was.values());
  }
  for (const rows of slices(gone)) await remove(rows);
  await put(come);
}

/** Rows by their two keys: whose they are, and what of theirs. */
const isOneOf = <K extends string>(
  person: PgColumn,
  column: PgColumn,
  rows: readonly (Readonly<Record<K, string>> & { readonly person: string })[],
  key: K,
): SQL =>
  sql`(${person}, ${column}) in (${sql.join(
    rows.map((row) => sql`(${row.person}, ${row[key]})`),
    sql`, `,
  )})`;

/** Whether somebody is done with something, as it is written down now. */
export async function hasCompleted(db: Database, person: PersonId, item: ItemId): Promise<boolean> {
  const rows = await db
    .select({ item: completions.item })
    .from(completions)
    .where(and(eq(completions.person, person), eq(completions.item, item)));
  return rows.length > 0;
}

/** Takes people away, with everything that is theirs. */
export async function deletePeople(db: Database, ids: readonly PersonId[]): Promise<void> {
  for (const slice of slices(ids)) await db.delete(people).where(inArray(people.id, slice));
}

export async function setPasswordHash(db: Database, person: PersonId, passwordHash: string): Promise<void> {
  await db.update(people).set({ passwordHash }).where(eq(people.id, person));
}

/** The password hashes of some people, by id; those without one are left out. */
export async function readPasswordHashes(
  db: Database,
  ids: readonly PersonId[],
): Promise<Readonly<Record<string, string>>> {
  const found: Record<string, string> = {};
  for (const slice of slices(ids)) {
    const rows = await db
      .select({ id: people.id, hash: people.passwordHash })
      .from(people)
      .where(inArray(people.id, slice));
    for (const { id, hash } of rows) if (hash !== null) found[id] = hash;
  }
  return found;
}

/** Those of some people who can't sign in with a password. */
export async function readWithoutPassword(
  db: Database,
  ids: readonly PersonId[],
): Promise<ReadonlySet<PersonId>> {
  const found = new Set<PersonId>();
  for (const slice of slices(ids)) {
    const rows = await db
      .select({ id: people.id })
      .from(people)
      .where(and(inArray(people.id, slice), isNull(people.passwordHash)));
    for (const { id } of rows) found.add(asId(id));
  }
  return found;
}
