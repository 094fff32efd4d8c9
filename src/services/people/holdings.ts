/** What a person has of the site's names, kind by kind: whatever counts it, checks it or takes it away reads this table. */
import type { ItemNames, NameKind } from '@/core';
import type { PersonRecord } from '@/store';

/**
 * The kinds of names that people have. A passphrase is typed, an audience is worked out, and records of courses name items,
 * which come and go without them.
 */
export type HeldKind = Exclude<NameKind, 'passphrase' | 'audience' | 'course' | 'unit' | 'activity'>;

/** As much of a record, or of a file about to become one. */
interface Held {
  readonly level: string | null;
  readonly roles: readonly string[];
  readonly groups: readonly string[];
  readonly profile: Readonly<Record<string, unknown>>;
  readonly purchases: readonly { readonly product: string }[];
}

interface Holding {
  /** The key of a record under which they stand. */
  readonly key: keyof Held;
  readonly idsOf: (person: Held) => readonly string[];
  readonly without: (person: PersonRecord, gone: string) => PersonRecord;
}

/** A list of a record, each entry of which names one thing. */
function listed<K extends 'roles' | 'groups' | 'purchases'>(
  key: K,
  idOf: (entry: Held[K][number]) => string,
): Holding {
  const list = (person: Held): readonly Held[K][number][] => person[key];
  return {
    key,
    idsOf: (person) => list(person).map(idOf),
    without: (person, gone) => ({ ...person, [key]: list(person).filter((entry) => idOf(entry) !== gone) }),
  };
}

const HOLDINGS: Readonly<Record<HeldKind, Holding>> = {
  level: {
    key: 'level',
    idsOf: ({ level }) => (level === null ? [] : [level]),
    without: (person) => ({ ...person, level: null }),
  },
  role: listed('roles', (role) => role),
  group: listed('groups', (group) => group),
  field: {
    key: 'profile',
    idsOf: ({ profile }) => Object.keys(profile),
    without: (person, gone) => {
      const { [gone]: _, ...profile } = person.profile;
      return { ...person, profile };
    },
  },
  product: listed('purchases', ({ product }) => product),
};

const isHeld = (kind: NameKind): kind is HeldKind => Object.hasOwn(HOLDINGS, kind);

/** Every name that somebody has, once. */
export const holdingsOf = (person: Held) =>
  (Object.keys(HOLDINGS) as HeldKind[]).flatMap((kind) =>
    [...new Set(HOLDINGS[kind].idsOf(person))].map((id) => ({ kind, id, key: HOLDINGS[kind].key })),
  );

/** Whether somebody has a thing. */
export const has = (person: Held, kind: NameKind, id: string): boolean =>
  isHeld(kind) && HOLDINGS[kind].idsOf(person).includes(id);

/** A person without something that is taken away; the same record when they don't have it. */
export const withoutName = (person: PersonRecord, kind: NameKind, gone: string): PersonRecord =>
  isHeld(kind) && has(person, kind, gone) ? HOLDINGS[kind].without(person, gone) : person;

/** Whether somebody has less of anything than before. */
export const losesSomething = (before: PersonRecord, after: PersonRecord): boolean =>
  Object.values(HOLDINGS).some(({ idsOf }) => idsOf(after).length < idsOf(before).length);

/** The records of courses that name nothing that this site has. */
export const recordsOfNothing = (
  {
    enrolments,
    completions,
  }: {
    readonly enrolments: readonly { readonly course: string }[];
    readonly completions: readonly { readonly item: string }[];
  },
  { courses, units, activities }: ItemNames,
): readonly { readonly key: 'enrolments' | 'completions'; readonly id: string }[] => {
  const learnt = new Set<string>([...courses, ...units, ...activities].map(({ id }) => id));
  const taught = new Set<string>(courses.map(({ id }) => id));
  return [
    ...enrolments.flatMap(({ course: id }) => (taught.has(id) ? [] : [{ key: 'enrolments' as const, id }])),
    ...completions.flatMap(({ item: id }) => (learnt.has(id) ? [] : [{ key: 'completions' as const, id }])),
  ];
};
