/** People and the names that describe them: levels, roles, groups. */
import { eq } from 'drizzle-orm';
import {
  asId,
  type GroupId,
  type LevelId,
  type PersonId,
  type RoleId,
  type VisitorFacts,
  type Vocabulary,
} from '@/core';
import type { Database } from './database';
import { groups, levels, people, personGroups, personRoles, roles } from './schema';

/** A person with an account. */
export interface Person {
  readonly id: PersonId;
  readonly email: string;
  readonly name: string;
  /** May use the desk. */
  readonly desk: boolean;
  readonly facts: VisitorFacts;
}

/** Everybody, in three queries whatever their number, in the order of their names. */
export async function readPeople(db: Database): Promise<readonly Person[]> {
  const rows = await db
    .select({ id: people.id, email: people.email, name: people.name, desk: people.desk, level: people.level })
    .from(people)
    .orderBy(people.name);
  const rolesOf = collect(
    await db.select({ person: personRoles.person, id: personRoles.role }).from(personRoles),
  );
  const groupsOf = collect(
    await db.select({ person: personGroups.person, id: personGroups.group }).from(personGroups),
  );
  return rows.map((row) => ({
    id: asId<PersonId>(row.id),
    email: row.email,
    name: row.name,
    desk: row.desk,
    facts: {
      signedIn: true,
      roles: (rolesOf.get(row.id) ?? []).map((id) => asId<RoleId>(id)),
      groups: (groupsOf.get(row.id) ?? []).map((id) => asId<GroupId>(id)),
      level: row.level === null ? null : asId<LevelId>(row.level),
    },
  }));
}

function collect(rows: readonly { person: string; id: string }[]): ReadonlyMap<string, string[]> {
  const found = new Map<string, string[]>();
  for (const { person, id } of rows) found.set(person, [...(found.get(person) ?? []), id]);
  return found;
}

/** The site's own names; levels lowest first. */
export async function readVocabulary(db: Database): Promise<Vocabulary> {
  const [levelRows, roleRows, groupRows] = [
    await db.select().from(levels).orderBy(levels.rank),
    await db.select().from(roles).orderBy(roles.name),
    await db.select().from(groups).orderBy(groups.name),
  ];
  return {
    levels: levelRows.map(({ id, name }) => ({ id: asId(id), name })),
    roles: roleRows.map(({ id, name }) => ({ id: asId(id), name })),
    groups: groupRows.map((row) => ({ id: asId(row.id), name: row.name, private: row.private })),
  };
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

/** A person with everything that is stored of them. */
export interface NewPerson extends Person {
  readonly passwordHash: string | null;
}

/** Writes the names and the people of a site into empty tables. */
export async function insertPeople(
  db: Database,
  vocabulary: Vocabulary,
  list: readonly NewPerson[],
): Promise<void> {
  const fill = async <T>(rows: readonly T[], insert: (rows: T[]) => Promise<unknown>) => {
    if (rows.length > 0) await insert([...rows]);
  };
  await fill(
    vocabulary.levels.map((level, rank) => ({ ...level, rank })),
    (rows) => db.insert(levels).values(rows),
  );
  await fill(vocabulary.roles, (rows) => db.insert(roles).values(rows));
  await fill(vocabulary.groups, (rows) => db.insert(groups).values(rows));
  await fill(
    list.map(({ facts, ...person }) => ({ ...person, level: facts.level })),
    (rows) => db.insert(people).values(rows),
  );
  await fill(
    list.flatMap(({ id, facts }) => (facts.roles ?? []).map((role) => ({ person: id, role }))),
    (rows) => db.insert(personRoles).values(rows),
  );
  await fill(
    list.flatMap(({ id, facts }) => (facts.groups ?? []).map((group) => ({ person: id, group }))),
    (rows) => db.insert(personGroups).values(rows),
  );
}
