/** Loading a site: everything in one file, all or nothing. The demo goes through here like anybody's site. */
import { z } from 'zod';
import {
  asId,
  type Item,
  isReserved,
  type LevelId,
  normaliseAddress,
  outlineOf,
  type Vocabulary,
} from '@/core';
import {
  insertFirstPolicy,
  insertItems,
  insertPeople,
  type NewPerson,
  type StoredItem,
  writeBoard,
} from '@/store';
import { readPolicy } from './policy-form';
import { hashPassword } from './secrets';
import type { Trivet } from './trivet';

const id = z
  .string()
  .min(1)
  .max(100)
  .regex(/^[a-z0-9-]+$/, 'An id is made of small letters, digits and hyphens.');
const name = z.string().trim().min(1).max(200);
const named = z.strictObject({ id, name });
const itemBase = { id, parent: id.nullable(), title: name, published: z.boolean().default(true) };
const target = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('item'), item: id }),
  z.strictObject({ kind: z.literal('outside'), url: z.url({ protocol: /^https?$/ }) }),
  z.strictObject({ kind: z.literal('sign in') }),
  z.strictObject({ kind: z.literal('sign out') }),
]);

/** A site as a file. Items stand in rank order among their siblings. */
const siteFile = z.strictObject({
  format: z.literal('trivet site'),
  version: z.literal(1),
  levels: z.array(named),
  roles: z.array(named),
  groups: z.array(z.strictObject({ id, name, private: z.boolean().default(false) })),
  people: z.array(
    z.strictObject({
      id,
      email: z.email().max(254),
      name,
      password: z.string().min(8).max(1000).optional(),
      desk: z.boolean().default(false),
      level: id.nullable().default(null),
      roles: z.array(id).default([]),
      groups: z.array(id).default([]),
    }),
  ),
  items: z.array(
    z.discriminatedUnion('kind', [
      /** The site's own text stands beside the sign-in form. */
      z.strictObject({ kind: z.literal('site'), ...itemBase, body: z.string().max(20_000).default('') }),
      z.strictObject({
        kind: z.literal('page'),
        ...itemBase,
        address: z.string().max(500),
        summary: z.string().max(2000).default(''),
        body: z.string().max(200_000).default(''),
      }),
      z.strictObject({ kind: z.literal('menu'), ...itemBase, place: z.literal('top') }),
      z.strictObject({ kind: z.literal('link'), ...itemBase, target }),
    ]),
  ),
  policy: z.unknown(),
  /** The people whom administrators find on the board beside a guest, until they choose others. */
  board: z.array(id).max(10).default([]),
});

export type SiteFile = z.input<typeof siteFile>;

/** Loads a site into a Trivet that has none. Answers every problem found, or none when it is loaded. */
export async function importSite(trivet: Trivet, input: unknown, author: string): Promise<readonly string[]> {
  if (trivet.hasSite) return ['This data folder already holds a site. Choose an empty one with TRIVET_DATA.'];
  const parsed = siteFile.safeParse(input);
  if (!parsed.success) return parsed.error.issues.map((issue) => `${issue.path.join('.')}: ${issue.message}`);
  const file = parsed.data;
  const vocabulary: Vocabulary = {
    levels: file.levels.map((level) => ({ ...level, id: asId(level.id) })),
    roles: file.roles.map((role) => ({ ...role, id: asId(role.id) })),
    groups: file.groups.map((group) => ({ ...group, id: asId(group.id) })),
  };
  const { stored, problems } = readItems(file.items);
  const outline = outlineOf(stored.map(({ item }) => item));
  if ('problems' in outline) problems.push(...outline.problems.map((problem) => problem.message));
  problems.push(...peopleProblems(file.people, vocabulary));
  const strangers = file.board.filter((one) => !file.people.some((person) => person.id === one));
  problems.push(...strangers.map((one) => `board: there is no person "${one}".`));
  if ('problems' in outline || problems.length > 0) return problems;
  const policy = readPolicy(file.policy, outline, vocabulary);
  if ('problems' in policy)
    return policy.problems.map(({ gate, message }) => `gate ${gate ?? '?'}: ${message}`);
  const people = await Promise.all(file.people.map(newPerson));
  await trivet.db.transaction(async (tx) => {
    await insertPeople(tx, vocabulary, people);
    await insertItems(tx, stored);
    await insertFirstPolicy(tx, policy.policy, author);
    const board = ['guest' as const, ...file.board.map((person) => ({ person }))];
    if (file.board.length > 0) {
      for (const person of people.filter(({ desk }) => desk)) await writeBoard(tx, person.id, board);
    }
  });
  await trivet.reload();
  return [];
}

type ItemInFile = z.output<typeof siteFile>['items'][number];
type PersonInFile = z.output<typeof siteFile>['people'][number];

function readItems(list: readonly ItemInFile[]): { stored: StoredItem[]; problems: string[] } {
  const problems: string[] = [];
  const stored = list.map((entry, rank): StoredItem => {
    const base = {
      id: asId<Item['id']>(entry.id),
      parent: entry.parent as Item['parent'],
      rank,
      title: entry.title,
    };
    const none = { summary: '', body: '' };
    switch (entry.kind) {
      case 'page': {
        const address = normaliseAddress(entry.address);
        if (address === null || address !== entry.address) {
          problems.push(`"${entry.title}" can't have the address ${entry.address}. Write it like /about/us.`);
        } else if (isReserved(address))
          problems.push(`${address} belongs to Trivet. Give "${entry.title}" another address.`);
        return {
          item: { ...base, published: entry.published, kind: 'page', address: address ?? ('/' as never) },
          content: { summary: entry.summary, body: entry.body },
        };
      }
      case 'link':
        return {
          item: { ...base, published: entry.published, kind: 'link', target: entry.target as never },
          content: none,
        };
      case 'menu':
        return {
          item: { ...base, published: entry.published, kind: 'menu', place: entry.place },
          content: none,
        };
      case 'site':
        return {
          item: { ...base, published: entry.published, kind: 'site' },
          content: { summary: '', body: entry.body },
        };
      default:
        return entry satisfies never;
    }
  });
  return { stored, problems };
}

function peopleProblems(list: readonly PersonInFile[], vocabulary: Vocabulary): string[] {
  const names = (entries: readonly { readonly id: string }[]) => new Set(entries.map((entry) => entry.id));
  const [levels, roles, groups] = [
    names(vocabulary.levels),
    names(vocabulary.roles),
    names(vocabulary.groups),
  ];
  const seen = new Set<string>();
  return list.flatMap((person) => {
    const problems = [
      ...(person.level === null || levels.has(person.level) ? [] : [`there is no level "${person.level}"`]),
      ...person.roles.filter((role) => !roles.has(role)).map((role) => `there is no role "${role}"`),
      ...person.groups.filter((group) => !groups.has(group)).map((group) => `there is no group "${group}"`),
      ...(seen.has(person.email.toLowerCase()) ? ['somebody else has the same mail address'] : []),
      ...(seen.has(person.id) ? ['somebody else has the same id'] : []),
    ];
    seen.add(person.email.toLowerCase()).add(person.id);
    return problems.map((problem) => `${person.name}: ${problem}.`);
  });
}

async function newPerson(person: PersonInFile): Promise<NewPerson> {
  return {
    id: asId(person.id),
    email: person.email.toLowerCase(),
    name: person.name,
    desk: person.desk,
    passwordHash: person.password === undefined ? null : await hashPassword(person.password),
    facts: {
      signedIn: true,
      level: person.level === null ? null : asId<LevelId>(person.level),
      roles: [...new Set(person.roles)].map((role) => asId(role)),
      groups: [...new Set(person.groups)].map((group) => asId(group)),
    },
  };
}
