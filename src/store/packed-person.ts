/** A person as one line of text: as the database says it, and as it is kept in memory until somebody asks. */
import { inArray, type SQL, sql } from 'drizzle-orm';
import type { PgTable } from 'drizzle-orm/pg-core';
import { asId, byCodePoints, type ItemId, type LevelId, type Packing, type PersonId } from '@/core';
import { inOrder, type PersonRecord } from './person-record';
import { completions, enrolments, people, personGroups, personRoles, purchases } from './schema';

/**
 * What a line says, as a JSON array: what everybody has and what many have, and the rest of those who have any of it. Lists
 * stand in any order, and are null where nothing is in them.
 */
type Line = readonly [
  ...(readonly [
    id: string,
    email: string,
    name: string,
    joined: string | null,
    level: string | null,
    profile: PersonRecord['profile'],
    groups: readonly (readonly [group: string, since: string | null])[] | null,
    enrolments: readonly (readonly [course: string, on: string, until: string | null])[] | null,
    completions: readonly (readonly [item: string, on: string, score: number | null])[] | null,
  ]),
  ...(
    | readonly []
    | readonly [
        right: NonNullable<PersonRecord['desk']>['right'] | null,
        branch: string | null,
        roles: readonly string[] | null,
        purchases:
          | readonly (readonly [
              product: string,
              on: string,
              until: string | null,
              state: PersonRecord['purchases'][number]['state'],
            ])[]
          | null,
      ]
  ),
];

const listed = <T, R>(list: readonly T[], of: (one: T) => R): readonly R[] | null =>
  list.length === 0 ? null : list.map(of);

export function packPerson(person: PersonRecord): string {
  const { desk, level, groupsSince } = person;
  const known = [
    person.id,
    person.email,
    person.name,
    person.joined,
    level,
    person.profile,
    listed(person.groups, (group) => [group, groupsSince[group] ?? null] as const),
    listed(person.enrolments, ({ course, on, until }) => [course, on, until] as const),
    listed(person.completions, ({ item, on, score }) => [item, on, score] as const),
  ] as const;
  const roles = listed(person.roles, (role) => role);
  const bought = listed(
    person.purchases,
    ({ product, on, until, state }) => [product, on, until, state] as const,
  );
  const line: Line =
    desk || roles || bought ? [...known, desk?.right ?? null, desk?.branch ?? null, roles, bought] : known;
  return JSON.stringify(line);
}

const NONE: readonly never[] = [];

export function unpackPerson(line: string): PersonRecord {
  const [id, email, name, joined, level, profile, groups, enrolled, done, right, branch, roles, bought] =
    JSON.parse(line) as Line;
  const lists = inOrder({
    roles: (roles ?? NONE).map((role) => asId(role)),
    groups: (groups ?? NONE).map(([group]) => asId(group)),
    enrolments: (enrolled ?? NONE).map(([course, on, until]) => ({ course: asId(course), on, until })),
    completions: (done ?? NONE).map(([item, on, score]) => ({ item: asId(item), on, score })),
  });
  return {
    id: asId(id),
    email,
    name,
    desk: right ? { right, branch: branch == null ? null : asId<ItemId>(branch) } : null,
    level: level === null ? null : asId<LevelId>(level),
    roles: lists.roles,
    groups: lists.groups,
    groupsSince: Object.fromEntries(
      (groups ?? NONE).filter(([, since]) => since !== null),
    ) as PersonRecord['groupsSince'],
    profile,
    joined,
    purchases: (bought ?? NONE).map(([product, on, until, state]) => ({
      product: asId(product),
      on,
      until,
      state,
    })),
    enrolments: lists.enrolments,
    completions: lists.completions,
  };
}

/** How people are kept in a map, but for how a line is read. */
export const packedPeople: Omit<Packing<PersonId, never>, 'read' | 'keyOf'> = {
  headOf: (id) => `[${JSON.stringify(id)},`,
  keyAt: (text, from) => stringAt(text, from + 1).value as PersonId,
  order: (a, b) => {
    const [one, other] = [headIn(a), headIn(b)];
    return byCodePoints(one.name, other.name) || byCodePoints(one.id, other.id);
  },
};

/** What a line of somebody with a mail address says of it, and nobody else's; may be part of what somebody wrote. */
export const saysMail = (email: string): string => `,${JSON.stringify(email)},`;

function headIn(line: string): { readonly id: string; readonly name: string } {
  const id = stringAt(line, 1);
  const email = stringAt(line, id.end + 1);
  return { id: id.value, name: stringAt(line, email.end + 1).value };
}

/** The string that begins at a place of JSON, and where it ends. */
function stringAt(text: string, from: number): { readonly value: string; readonly end: number } {
  let end = text.indexOf('"', from + 1);
  // One that is escaped has an odd number of backslashes before it.
  while (isEscaped(text, end)) end = text.indexOf('"', end + 1);
  const inner = text.slice(from + 1, end);
  return { value: inner.includes('\\') ? (JSON.parse(`"${inner}"`) as string) : inner, end: end + 1 };
}

function isEscaped(text: string, at: number): boolean {
  let backslashes = 0;
  while (text[at - 1 - backslashes] === '\\') backslashes += 1;
  return backslashes % 2 === 1;
}

/** A JSON array of what is said in JSON. */
const array = (parts: readonly SQL[]): SQL => sql`'[' || ${commas(parts)} || ']'`;
const commas = (parts: readonly SQL[]): SQL => sql.join([...parts], sql` || ',' || `);
const orNull = (text: SQL): SQL => sql`coalesce(${text}, 'null')`;
const json = (column: string): SQL => orNull(sql`to_json(${sql.raw(column)})::text`);

/** Columns of a table as a list for each person. */
const lists = (table: PgTable, one: SQL, whose: SQL, order: SQL = sql``): SQL =>
  sql`(select person, '[' || string_agg(${one}, ',' ${order}) || ']' as list from ${table} where ${whose} group by person)`;

/** A line for each person of a condition on their id. */
const linesOf = (whose: (id: SQL) => SQL): SQL => {
  const theirs = whose(sql`person`);
  const columns = (...names: string[]): SQL => array(names.map(json));
  return sql`
    select p.name, p.id, '[' || ${commas([
      ...['p.id', 'p.email', 'p.name', 'p.joined', 'p.level'].map(json),
      sql`p.profile::text`,
      ...['g.list', 'e.list', 'c.list'].map((list) => orNull(sql.raw(list))),
    ])} || case when num_nonnulls(p.desk_right, r.list, b.list) = 0 then '' else ',' || ${commas([
      ...['p.desk_right', 'p.desk_branch'].map(json),
      ...['r.list', 'b.list'].map((list) => orNull(sql.raw(list))),
    ])} end || ']' as line
    from ${people} p
    left join ${lists(personGroups, columns('group_id', 'since'), theirs)} g on g.person = p.id
    left join ${lists(enrolments, columns('course', '"on"', 'until'), theirs)} e on e.person = p.id
    left join ${lists(completions, columns('activity', '"on"', 'score'), theirs)} c on c.person = p.id
    left join ${lists(personRoles, json('role'), theirs)} r on r.person = p.id
    left join ${lists(purchases, columns('product', '"on"', 'until', 'state'), theirs, sql`order by id`)} b on b.person = p.id
    where ${whose(sql`p.id`)}`;
};

/** Some people in no order, a line for each. */
export const somePacked = (ids: readonly PersonId[]): SQL => linesOf((id) => inArray(id, [...ids]));

/** Everybody in the order of their names: texts of so many lines, with a break before each. */
export const everybodyPacked = (inText: number): SQL => sql`
  select string_agg(E'\\n' || line, '' order by name, id) as text from (
    select *, (row_number() over (order by name, id) - 1) / ${sql.raw(String(inText))} as part from (${linesOf(() => sql`true`)}) lines
  ) parts group by part order by part`;
