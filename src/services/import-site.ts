/** Loading a site: everything in one file, all or nothing. The demo goes through here like anybody's site. */
import { z } from 'zod';
import {
  type Address,
  asId,
  FIELD_TYPES,
  fieldValueProblem,
  type Item,
  type ItemFacts,
  type ItemId,
  isDay,
  isReserved,
  type LevelId,
  MENU_PLACES,
  momentIn,
  type NameKind,
  nameOfId,
  normaliseAddress,
  type Outline,
  outlineOf,
  type PassphraseId,
  type PersonId,
  type Policy,
  type SiteNames,
  type Vocabulary,
  vocabularyOf,
} from '@/core';
import {
  insertFirstPolicy,
  insertItems,
  insertSettings,
  noContent,
  noteOldAddress,
  type PersonRecord,
  type StoredItem,
  setPassphraseHash,
  setPasswordHash,
  writeBoard,
  writeFileBytes,
  writeNames,
  writePeople,
} from '@/store';
import { readConditionTexts } from './condition-texts';
import { deskForm } from './person-form';
import { readPolicy } from './policy-form';
import { LARGEST_FILE, type ReadFile, readFile } from './read-file';
import { indexItems } from './search-index';
import { hashPassphrase, hashPassword } from './secrets';
import { id, type SectionRead, sectionProblems, sectionShape, storedSection, target } from './section-form';
import { newSettings } from './settings';
import type { Trivet } from './trivet';

const name = z.string().trim().min(1).max(200);
const named = z.strictObject({ id, name });

const day = z.string().refine(isDay, 'Write a day like 2026-12-01.');
const facts = z.strictObject({
  category: name.optional(),
  tags: z.array(name).max(50).optional(),
  author: name.optional(),
  owner: id.optional(),
  group: id.optional(),
  date: day.optional(),
  picture: id.optional(),
});
const timeZone = z.string().refine((zone) => {
  try {
    return momentIn(zone, new Date(0)) !== null;
  } catch {
    return false;
  }
}, 'That is no time zone. Write one like Europe/Stockholm.');

const itemBase = {
  id,
  parent: id.nullable(),
  title: name,
  published: z.boolean().default(true),
  facts: facts.optional(),
};

const addressed = {
  address: z.string().max(500),
  summary: z.string().max(2000).default(''),
  /** The text of a page that is one text, in place of sections. */
  body: z.string().max(200_000).default(''),
  sections: z.array(sectionShape).max(100).default([]),
  /** Addresses that it had before. */
  formerly: z.array(z.string().max(500)).max(50).default([]),
};

/** A site as a file. Items stand in rank order among their siblings. */
const siteFile = z.strictObject({
  format: z.literal('trivet site'),
  version: z.literal(1),
  timeZone: timeZone.default('UTC'),
  levels: z.array(named),
  roles: z.array(named),
  groups: z.array(
    z.strictObject({ id, name, private: z.boolean().default(false), open: z.boolean().default(false) }),
  ),
  products: z
    .array(z.strictObject({ id, name, kind: z.enum(['one-off', 'subscription', 'ticket']) }))
    .default([]),
  fields: z
    .array(
      z.strictObject({
        id,
        name,
        type: z.enum(FIELD_TYPES),
        choices: z.array(name).max(100).default([]),
        private: z.boolean().default(false),
        editable: z.boolean().default(false),
      }),
    )
    .default([]),
  courses: z.array(named).default([]),
  activities: z.array(named).default([]),
  passphrases: z
    .array(z.strictObject({ id, name, passphrase: z.string().min(6).max(200).optional() }))
    .default([]),
  people: z.array(
    z.strictObject({
      id,
      email: z.email().max(254),
      name,
      password: z.string().min(8).max(1000).optional(),
      desk: deskForm.default(null),
      level: id.nullable().default(null),
      roles: z.array(id).default([]),
      groups: z.array(id).default([]),
      profile: z.record(id, z.union([z.string(), z.number(), z.boolean()])).default({}),
      joined: day.nullable().default(null),
      purchases: z
        .array(
          z.strictObject({
            product: id,
            on: day,
            until: day.nullable().default(null),
            state: z.enum(['paid', 'failed', 'refunded']).default('paid'),
          }),
        )
        .default([]),
      enrolments: z.array(z.strictObject({ course: id, on: day })).default([]),
      completions: z
        .array(z.strictObject({ activity: id, on: day, score: z.number().nullable().default(null) }))
        .default([]),
    }),
  ),
  items: z.array(
    z.discriminatedUnion('kind', [
      /** The site's own text stands beside the sign-in form. */
      z.strictObject({ kind: z.literal('site'), ...itemBase, body: z.string().max(20_000).default('') }),
      z.strictObject({ kind: z.literal('page'), ...itemBase, ...addressed }),
      z.strictObject({ kind: z.literal('post'), ...itemBase, ...addressed }),
      z.strictObject({
        kind: z.literal('file'),
        ...itemBase,
        /** With the extension; what it is, its content says. */
        name: z.string().max(200),
        /** In base64. */
        data: z.base64().max((LARGEST_FILE * 4) / 3 + 4),
        /** What a picture shows, for those who can't see it. */
        alt: z.string().max(500).default(''),
      }),
      z.strictObject({ kind: z.literal('menu'), ...itemBase, place: z.enum(MENU_PLACES) }),
      z.strictObject({ kind: z.literal('link'), ...itemBase, target }),
    ]),
  ),
  /** Conditions in it may stand in the text form. */
  policy: z.unknown(),
  /** The people whom administrators find on the board beside a guest, until they choose others. */
  board: z.array(id).max(10).default([]),
});

export type SiteFile = z.input<typeof siteFile>;

/** A site file that was read: everything in it, checked, and nothing written yet. */
export interface SiteInFile {
  readonly outline: Outline;
  readonly stored: readonly StoredItem[];
  readonly names: SiteNames;
  readonly people: readonly PersonRecord[];
  readonly policy: Policy;
  readonly bytes: ReadonlyMap<ItemId, Uint8Array>;
  readonly formerly: readonly { readonly address: Address; readonly item: ItemId }[];
  readonly file: FileRead;
}

/** Reads a site file, or lists every problem found. */
export async function readSiteFile(
  input: unknown,
): Promise<SiteInFile | { readonly problems: readonly string[] }> {
  const parsed = siteFile.safeParse(input);
  if (!parsed.success)
    return { problems: parsed.error.issues.map((issue) => `${issue.path.join('.')}: ${issue.message}`) };
  const file = parsed.data;
  const names = namesIn(file);
  const texts = readConditionTexts(file.policy, names);
  // What regions can name: the audiences are known as soon as they have been read.
  const audiences = (texts.policy as { audiences?: Policy['audiences'] } | null)?.audiences ?? [];
  const read = await readItems(file.items, { ...names, audiences });
  const { stored, problems } = read;
  const outline = outlineOf(stored.map(({ item }) => item));
  if ('problems' in outline) problems.push(...outline.problems.map((problem) => problem.message));
  problems.push(...fieldProblems(names), ...peopleProblems(file.people, names));
  const strangers = file.board.filter((one) => !file.people.some((person) => person.id === one));
  problems.push(...strangers.map((one) => `board: there is no person "${one}".`));
  if ('problems' in outline || problems.length > 0) return { problems };
  if (texts.problems.length > 0) return { problems: texts.problems };
  const given = readPolicy(texts.policy, { outline, names });
  if ('problems' in given)
    return { problems: given.problems.map(({ gate, message }) => `gate ${gate ?? '?'}: ${message}`) };
  const { bytes, formerly } = read;
  return {
    outline,
    stored,
    names,
    people: file.people.map(recordIn),
    policy: given.policy,
    bytes,
    formerly,
    file,
  };
}

/** Loads a site into a Trivet that has none. Answers every problem found, or none when it is loaded. */
export async function importSite(trivet: Trivet, input: unknown, author: string): Promise<readonly string[]> {
  if (trivet.hasSite) return ['This data folder already holds a site. Choose an empty one with TRIVET_DATA.'];
  const site = await readSiteFile(input);
  if ('problems' in site) return site.problems;
  const { file, names, people } = site;
  const settings = newSettings(file.timeZone);
  const passwords = await Promise.all(
    file.people.flatMap(({ id, password }) =>
      password === undefined
        ? []
        : [hashPassword(password).then((hash) => ({ id: asId<PersonId>(id), hash }))],
    ),
  );
  const passphrases = await Promise.all(
    file.passphrases.flatMap(({ id, passphrase }) =>
      passphrase === undefined
        ? []
        : [
            hashPassphrase(passphrase, settings.passphraseSalt).then((hash) => ({
              id: asId<PassphraseId>(id),
              hash,
            })),
          ],
    ),
  );
  await trivet.db.transaction(async (tx) => {
    await insertSettings(tx, settings);
    await writeNames(tx, names);
    await writePeople(tx, people);
    for (const { id, hash } of passwords) await setPasswordHash(tx, id, hash);
    for (const { id, hash } of passphrases) await setPassphraseHash(tx, id, hash);
    await insertItems(tx, site.stored);
    for (const [item, bytes] of site.bytes) await writeFileBytes(tx, item, bytes);
    for (const { address, item } of site.formerly) await noteOldAddress(tx, address, item);
    await indexItems(tx, site.stored, vocabularyOf(names, site.policy));
    await insertFirstPolicy(tx, site.policy, author);
    const board = ['guest' as const, ...file.board.map((person) => ({ person }))];
    if (file.board.length > 0) {
      for (const person of people.filter(({ desk }) => desk)) await writeBoard(tx, person.id, board);
    }
  });
  await trivet.reload();
  return [];
}

type FileRead = z.output<typeof siteFile>;

/** The names in a file. Its ids are known to be well formed, and names of different kinds can't be mixed up after this. */
function namesIn(file: FileRead): SiteNames {
  const ids = <T extends { readonly id: string }>(list: readonly T[]) =>
    list.map((one) => ({ ...one, id: asId<never>(one.id) }));
  return {
    levels: ids(file.levels),
    roles: ids(file.roles),
    groups: ids(file.groups),
    products: ids(file.products),
    fields: ids(file.fields),
    courses: ids(file.courses),
    activities: ids(file.activities),
    passphrases: ids(file.passphrases.map(({ id, name }) => ({ id, name }))),
  };
}

const fieldProblems = (names: SiteNames): string[] =>
  names.fields
    .filter(({ type, choices }) => (type === 'choice') !== choices.length > 0)
    .map(({ name, type }) =>
      type === 'choice'
        ? `${name}: give it something to choose from.`
        : `${name}: only choices have choices.`,
    );

type ItemInFile = FileRead['items'][number];
type PersonInFile = FileRead['people'][number];

interface ItemsRead {
  readonly stored: StoredItem[];
  readonly bytes: Map<ItemId, Uint8Array>;
  readonly formerly: { readonly address: Address; readonly item: ItemId }[];
  readonly problems: string[];
}

/** The items of a file, their sections among them. */
async function readItems(list: readonly ItemInFile[], vocabulary: Vocabulary): Promise<ItemsRead> {
  const into: ItemsRead = { stored: [], bytes: new Map(), formerly: [], problems: [] };
  const sections: SectionRead[] = [];
  for (const [rank, entry] of list.entries()) {
    const base = {
      id: asId<ItemId>(entry.id),
      parent: entry.parent as Item['parent'],
      rank,
      title: entry.title,
      published: entry.published,
      ...(entry.facts && { facts: entry.facts as unknown as ItemFacts }),
    };
    const add = (item: Item, content: StoredItem['content'] = noContent) =>
      into.stored.push({ item, content });
    switch (entry.kind) {
      case 'page':
      case 'post': {
        const address = readAddress(entry.address, entry.title, into.problems);
        add({ ...base, kind: entry.kind, address }, { summary: entry.summary, body: '' });
        for (const former of entry.formerly)
          into.formerly.push({ address: readAddress(former, entry.title, into.problems), item: base.id });
        const only: SectionRead[] =
          entry.body === ''
            ? []
            : [
                {
                  type: 'text',
                  id: `${entry.id}-text`,
                  title: 'Text',
                  summary: '',
                  published: true,
                  text: entry.body,
                },
              ];
        for (const [place, section] of [...only, ...entry.sections].entries()) {
          sections.push(section);
          into.stored.push(storedSection(section, base.id, place, vocabulary));
        }
        break;
      }
      case 'file': {
        const file = await readFile(new Uint8Array(Buffer.from(entry.data, 'base64')), entry.name);
        if ('problem' in file) into.problems.push(`${entry.title}: ${file.problem}`);
        else addFile(file, entry.alt, base, into);
        break;
      }
      case 'link':
        add({ ...base, kind: 'link', target: entry.target as never });
        break;
      case 'menu':
        add({ ...base, kind: 'menu', place: entry.place });
        break;
      case 'site':
        add({ ...base, kind: 'site' }, { summary: '', body: entry.body });
        break;
      default:
        entry satisfies never;
    }
  }
  const items = new Map(into.stored.map(({ item }) => [item.id as string, item]));
  into.problems.push(
    ...sectionProblems(sections, vocabulary, (one) => items.get(one)).map(
      ({ section, line, message }) => `${section}${line === null ? '' : `, line ${line}`}: ${message}`,
    ),
  );
  return into;
}

function addFile(
  file: ReadFile,
  alt: string,
  base: Omit<Item, 'kind'>,
  { stored, bytes }: Pick<ItemsRead, 'stored' | 'bytes'>,
): void {
  const { name: fileName, mediaType, picture } = file;
  stored.push({
    item: { ...base, kind: 'file', name: fileName, mediaType, size: file.bytes.length },
    content: { ...noContent, ...(picture && { picture: { ...picture, alt } }) },
  });
  bytes.set(base.id, file.bytes);
}

function readAddress(written: string, whose: string, problems: string[]): Address {
  const address = normaliseAddress(written);
  if (address === null || address !== written)
    problems.push(`"${whose}" can't have the address ${written}. Write it like /about/us.`);
  else if (isReserved(address))
    problems.push(`${address} belongs to Trivet. Give "${whose}" another address.`);
  return address ?? ('/' as Address);
}

function peopleProblems(list: readonly PersonInFile[], names: SiteNames): string[] {
  const missing = (kind: NameKind, ids: readonly string[]) =>
    ids
      .filter((one) => nameOfId({ ...names, audiences: [] }, kind, one) === null)
      .map((one) => `there is no ${kind} "${one}"`);
  const seen = new Set<string>();
  return list.flatMap((person) => {
    const problems = [
      ...missing('level', person.level === null ? [] : [person.level]),
      ...missing('role', person.roles),
      ...missing('group', person.groups),
      ...missing('field', Object.keys(person.profile)),
      ...missing(
        'product',
        person.purchases.map(({ product }) => product),
      ),
      ...missing(
        'course',
        person.enrolments.map(({ course }) => course),
      ),
      ...missing(
        'activity',
        person.completions.map(({ activity }) => activity),
      ),
      ...names.fields.flatMap((field) => {
        const value = person.profile[field.id];
        const problem = value === undefined ? null : fieldValueProblem(field, value);
        return problem === null ? [] : [problem.replace(/\.$/, '')];
      }),
      ...(seen.has(person.email.toLowerCase()) ? ['somebody else has the same mail address'] : []),
      ...(seen.has(person.id) ? ['somebody else has the same id'] : []),
    ];
    seen.add(person.email.toLowerCase()).add(person.id);
    return problems.map((problem) => `${person.name}: ${problem}.`);
  });
}

const recordIn = ({ password: _, ...person }: PersonInFile): PersonRecord => ({
  ...person,
  id: asId(person.id),
  email: person.email.toLowerCase(),
  desk: person.desk && { ...person.desk, branch: person.desk.branch as ItemId | null },
  level: person.level === null ? null : asId<LevelId>(person.level),
  roles: [...new Set(person.roles)].map((role) => asId(role)),
  groups: [...new Set(person.groups)].map((group) => asId(group)),
  purchases: person.purchases.map((one) => ({ ...one, product: asId(one.product) })),
  enrolments: person.enrolments.map((one) => ({ ...one, course: asId(one.course) })),
  completions: person.completions.map((one) => ({ ...one, activity: asId(one.activity) })),
});
