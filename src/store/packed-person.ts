/** A person as one line of text: as the database says it, and as it is kept in memory until somebody asks. */
import { type SQL, sql } from 'drizzle-orm';
import type { PgTable } from 'drizzle-orm/pg-core';
import {
  asId,
  byCodePoints,
  type ItemId,
  type LevelId,
  type Ordering,
  type Packing,
  type PersonId,
} from '@/core';
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

/** The order of lines, which is that of the names in them. */
export const byName: Ordering<ReturnType<typeof headIn>> = {
  of: headIn,
  order: (a, b) => byCodePoints(a.name, b.name) || byCodePoints(a.id, b.id),
};

/** How people are kept in a map, but for how a line is read. */
export const packedPeople: Omit<Packing<PersonId, never>, 'read' | 'keyOf'> = {
  headOf: (id) => `[${JSON.stringify(id)},`,
  keyAt: (text, from) => stringAt(text, from + 1).value as PersonId,
  order: (a, b) => byName.order(byName.of(a), byName.of(b)),
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

const commas = (parts: readonly SQL[]): SQL => sql.join([...parts], sql` || ',' || `);
/** A JSON array of what is said in JSON. */
const array = (parts: readonly SQL[]): SQL => sql`'[' || ${commas(parts)} || ']'`;
const orNull = (text: SQL): SQL => sql`coalesce(${text}, 'null')`;
const json = (column: string): SQL => orNull(sql`to_json(${sql.raw(column)})::text`);

interface Listed {
  readonly table: PgTable;
  /** What is said of one of them. */
  readonly one: SQL;
  readonly order?: SQL;
}

const columns = (...names: readonly string[]): SQL => sql.raw(`json_build_array(${names.join()})`);

/** What other tables have of people. */
const LISTED = {
  groups: { table: personGroups, one: columns('group_id', 'since') },
  enrolments: { table: enrolments, one: columns('course', '"on"', 'until') },
  completions: { table: completions, one: columns('activity', '"on"', 'score') },
  roles: { table: personRoles, one: sql`role` },
  purchases: {
    table: purchases,
    one: columns('product', '"on"', 'until', 'state'),
    order: sql`order by id`,
  },
} satisfies Record<string, Listed>;

/** Half of what it takes to put it together from texts; the spaces that it writes are two of a hundred bytes. */
const inList = ({ one, order = sql`` }: Listed): SQL => sql`json_agg(${one} ${order})::text`;

type ListOf = (name: keyof typeof LISTED) => SQL;

/** What a line says of a row `p` of people, of lists that are null where nothing is in them: what it says of everybody … */
const known = (listOf: ListOf): readonly SQL[] => [
  ...['p.id', 'p.email', 'p.name', 'p.joined', 'p.level'].map(json),
  sql`p.profile::text`,
  ...(['groups', 'enrolments', 'completions'] as const).map((name) => orNull(listOf(name))),
];

/** … and the rest. */
const rest = (listOf: ListOf): readonly SQL[] => [
  ...['p.desk_right', 'p.desk_branch'].map(json),
  ...(['roles', 'purchases'] as const).map((name) => orNull(listOf(name))),
];

/** The line of a row `p` of people: its lists are looked up one by one. */
export function packedLine(): SQL {
  const listOf: ListOf = (name) => {
    const of: Listed = LISTED[name];
    return sql`(select ${inList(of)} from ${of.table} where person = p.id)`;
  };
  return array([...known(listOf), ...rest(listOf)]);
}

/** What comes after every id. */
const LAST = '\u{10ffff}';

/** A text of the lines of so many people, in the order of their names. */
export interface Slice extends Record<string, unknown> {
  /** With a break before each; null where nobody is. */
  readonly text: string | null;
  /** The last id in it; null where nobody comes after. */
  readonly last: string | null;
}

/** Asks for the {@link Slice} of so many whose ids come after one. */
export function packedSlice(after: string, many: number): SQL {
  const within = (column: SQL) =>
    sql`${column} > ${after} and ${column} <= coalesce((select id from bound), ${LAST})`;
  const listOf: ListOf = (name) => sql`${sql.identifier(name)}.list`;
  const line = sql`'[' || ${commas(known(listOf))} ||
    case when num_nonnulls(p.desk_right, ${listOf('roles')}, ${listOf('purchases')}) = 0 then '' else ',' || ${commas(rest(listOf))} end || ']'`;
  const joins = Object.entries(LISTED).map(
    ([name, of]: [string, Listed]) => sql`
      left join (
        select person, ${inList(of)} as list from ${of.table} where ${within(sql`person`)} group by person
      ) ${sql.identifier(name)} on ${sql.identifier(name)}.person = p.id`,
  );
  return sql`
    with bound as (select id from ${people} where id > ${after} order by id offset ${many - 1} limit 1)
    select (select id from bound) as last, string_agg(E'\\n' || line, '' order by name, id) as text from (
      select p.name, p.id, ${line} as line from ${people} p ${sql.join(joins, sql` `)} where ${within(sql`p.id`)}
    ) lines`;
}
