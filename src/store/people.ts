/** People, in a fixed number of queries whatever their number. */
import { and, eq, inArray, isNull, sql } from 'drizzle-orm';
import type { PgColumn } from 'drizzle-orm/pg-core';
import { asId, type ItemId, type LevelId, type PersonId } from '@/core';
import type { Database } from './database';
import type { PersonRecord } from './person-record';
import { completions, enrolments, people, personGroups, personRoles, purchases } from './schema';

// Parameters of one statement are limited; rows are written in slices of this many.
const SLICE = 1000;

/** Everybody, or some by their ids, in the order of their names. */
export async function readPeople(db: Database, ids?: readonly PersonId[]): Promise<readonly PersonRecord[]> {
  if (ids && ids.length > SLICE) {
    const all: PersonRecord[] = [];
    for (const slice of slices(ids)) all.push(...(await readPeople(db, slice)));
    return all;
  }
  const of = <T extends { readonly person: PgColumn }>({ person }: T) =>
    ids ? inArray(person, [...ids]) : undefined;
  const rows = await db
    .select({
      id: people.id,
      email: people.email,
      name: people.name,
      right: people.deskRight,
      branch: people.deskBranch,
      level: people.level,
      profile: people.profile,
      joined: people.joined,
    })
    .from(people)
    .where(ids ? inArray(people.id, [...ids]) : undefined)
    .orderBy(people.name, people.id);
  const rolesOf = byPerson(await db.select().from(personRoles).where(of(personRoles)));
  const groupsOf = byPerson(await db.select().from(personGroups).where(of(personGroups)));
  const purchasesOf = byPerson(await db.select().from(purchases).where(of(purchases)).orderBy(purchases.id));
  const enrolmentsOf = byPerson(await db.select().from(enrolments).where(of(enrolments)));
  const completionsOf = byPerson(await db.select().from(completions).where(of(completions)));
  return rows.map(({ level, right, branch, ...row }) => ({
    ...row,
    desk: right && { right, branch: branch === null ? null : asId<ItemId>(branch) },
    id: asId<PersonId>(row.id),
    level: level === null ? null : asId<LevelId>(level),
    roles: (rolesOf.get(row.id) ?? []).map(({ role }) => asId(role)),
    groups: (groupsOf.get(row.id) ?? []).map(({ group }) => asId(group)),
    groupsSince: Object.fromEntries(
      (groupsOf.get(row.id) ?? []).flatMap(({ group, since }) => (since === null ? [] : [[group, since]])),
    ),
    purchases: (purchasesOf.get(row.id) ?? []).map(({ product, on, until, state }) => ({
      product: asId(product),
      on,
      until,
      state,
    })),
    enrolments: (enrolmentsOf.get(row.id) ?? []).map(({ course, on, until }) => ({
      course: asId(course),
      on,
      until,
    })),
    completions: (completionsOf.get(row.id) ?? []).map(({ item, on, score }) => ({
      item: asId(item),
      on,
      score,
    })),
  }));
}

function byPerson<T extends { readonly person: string }>(rows: readonly T[]): ReadonlyMap<string, T[]> {
  const found = new Map<string, T[]>();
  for (const row of rows) {
    const list = found.get(row.person);
    if (list) list.push(row);
    else found.set(row.person, [row]);
  }
  return found;
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

/** Writes people whole, new ones and those there were; their passwords stay as they are. Belongs in a transaction. */
export async function writePeople(db: Database, list: readonly PersonRecord[]): Promise<void> {
  for (const slice of slices(list)) {
    const ids = slice.map(({ id }) => id);
    // Two people may swap their addresses; for a moment nobody has them.
    await db
      .update(people)
      .set({ email: sql`'~' || ${people.id}` })
      .where(inArray(people.id, ids));
  }
  for (const slice of slices(list)) {
    const ids = slice.map(({ id }) => id);
    await db
      .insert(people)
      .values(
        slice.map(({ id, email, name, desk, level, profile, joined }) => ({
          id,
          email,
          name,
          deskRight: desk?.right ?? null,
          deskBranch: desk?.branch ?? null,
          level,
          profile,
          joined,
        })),
      )
      .onConflictDoUpdate({
        target: people.id,
        set: {
          email: sql`excluded.email`,
          name: sql`excluded.name`,
          deskRight: sql`excluded.desk_right`,
          deskBranch: sql`excluded.desk_branch`,
          level: sql`excluded.level`,
          profile: sql`excluded.profile`,
          joined: sql`excluded.joined`,
        },
      });
    for (const table of [personRoles, personGroups, purchases, enrolments, completions])
      await db.delete(table).where(inArray(table.person, ids));
  }
  const rowsOf = <T>(pick: (person: PersonRecord) => readonly T[]): T[] => list.flatMap(pick);
  for (const rows of slices(rowsOf(({ id, roles }) => roles.map((role) => ({ person: id, role })))))
    await db.insert(personRoles).values(rows);
  const memberships = ({ id, groups, groupsSince }: PersonRecord) =>
    groups.map((group) => ({ person: id, group, since: groupsSince[group] ?? null }));
  for (const rows of slices(rowsOf(memberships))) await db.insert(personGroups).values(rows);
  for (const rows of slices(rowsOf((one) => one.purchases.map((row) => ({ person: one.id, ...row })))))
    await db.insert(purchases).values(rows);
  for (const rows of slices(rowsOf((one) => one.enrolments.map((row) => ({ person: one.id, ...row })))))
    await db.insert(enrolments).values(rows);
  for (const rows of slices(rowsOf((one) => one.completions.map((row) => ({ person: one.id, ...row })))))
    await db.insert(completions).values(rows);
}

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

/** A list in pieces that one statement can take. */
function* slices<T>(list: readonly T[]): Generator<T[]> {
  for (let at = 0; at < list.length; at += SLICE) yield list.slice(at, at + SLICE);
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
