/** Reading a site file: everything in it checked, every problem with its place, and nothing written. */
import { z } from 'zod';
import {
  type Address,
  asId,
  type ByGroup,
  type ByProduct,
  type Condition,
  DEEPEST,
  DEEPEST_ITEM,
  fieldValueProblem,
  type Item,
  type ItemFacts,
  type ItemId,
  isReserved,
  type LevelId,
  nameOfId,
  normaliseAddress,
  type Outline,
  outlineOf,
  type Policy,
  parseCondition,
  type SiteNames,
  tooDeepIn,
  unkeptIn,
  type Vocabulary,
} from '@/core';
import { inOrder, noContent, type PersonRecord, type StoredItem, type StoredTerms } from '@/store';
import { type ReadFile, readFile, startsProblems, termsIn, termsProblems, tooDeep } from '../forms';
import { holdingsOf, recordsOfNothing } from '../people';
import { readConditionTexts, readPolicy } from '../policy';
import { byGroupIn, byProductIn, type SiteState } from '../running';
import {
  enrollingOf,
  enrollingProblem,
  quizProblems,
  readStands,
  type SectionRead,
  type SiteItems,
  sectionProblems,
  storedSection,
} from '../writing';
import { itemsOfNames } from './former-names';
import { FORMAT, type SiteFileRead, siteFile, VERSION } from './site-file-form';

/** A site file that was read: everything in it, checked, and nothing written yet. */
export interface SiteInFile extends SiteItems {
  readonly outline: Outline;
  readonly byGroup: ByGroup;
  readonly byProduct: ByProduct;
  /** What products are sold for and give; null where the file leaves that as it is. */
  readonly terms: readonly Pick<StoredTerms, 'product' | 'terms'>[] | null;
  readonly names: SiteNames;
  /** Null where the file leaves people as they are. */
  readonly people: readonly PersonRecord[] | null;
  readonly policy: Policy;
  readonly draft: Policy;
  readonly file: SiteFileRead;
}

/** The policies there are, where a file comes to a site: what they name and is gone meanwhile may stay. */
interface Kept {
  /** Files as they are kept: one with the same bytes is the same file, and is not read anew. */
  readonly files: ReadonlyMap<ItemId, StoredItem & { readonly bytes: Uint8Array }>;
  readonly draft: { readonly policy: Policy };
  readonly live: { readonly policy: Policy };
  readonly shop: SiteState['shop'];
}

/** Why something is no site file of ours at all, or null. */
function formatProblem(input: unknown): string | null {
  const head = z.looseObject({ format: z.unknown(), version: z.unknown() }).safeParse(input);
  if (!head.success || head.data.format !== FORMAT)
    return `This is no site file: it does not begin with "format": "${FORMAT}".`;
  const { version } = head.data;
  return typeof version === 'number' && version > VERSION
    ? `This file is of version ${version}, and this Trivet reads version ${VERSION}. Bring Trivet up to date first.`
    : null;
}

const MOST_PROBLEMS = 50;

/** Reads a site file, or lists every problem found. */
export async function readSiteFile(
  input: unknown,
  kept?: Kept,
): Promise<SiteInFile | { readonly problems: readonly string[] }> {
  const foreign = formatProblem(input);
  if (foreign !== null) return { problems: [foreign] };
  const unkept = unkeptIn(input);
  if (unkept !== null) return { problems: [`${unkept.path}: ${unkept.message}`] };
  const {
    policy: raw,
    draft: rawDraft,
    shared,
    shop,
  } = input as Readonly<Partial<Record<'policy' | 'draft' | 'shared' | 'shop', unknown>>>;
  if (tooDeep(shared))
    return { problems: [`shared: a condition is nested more than ${DEEPEST} deep. Take some groups apart.`] };
  if (tooDeep(shop))
    return { problems: [`shop: a condition is nested more than ${DEEPEST} deep. Take some groups apart.`] };
  if (tooDeep(raw) || tooDeep(rawDraft))
    return { problems: [`policy: a condition is nested more than ${DEEPEST} deep. Take some groups apart.`] };
  const parsed = siteFile.safeParse(input);
  if (!parsed.success)
    return {
      problems: parsed.error.issues
        .slice(0, MOST_PROBLEMS)
        .map((issue) => `${placeIn(input, issue.path)}: ${issue.message}`),
    };
  const file = { ...parsed.data, items: [...parsed.data.items, ...itemsOfNames(parsed.data)] };
  const names = namesIn(file);
  const texts = readConditionTexts(file.policy, names);
  const draftTexts = file.draft === undefined ? null : readConditionTexts(file.draft, names);
  // What regions can name: the audiences are known as soon as they have been read.
  const audiences = 'policy' in texts ? texts.policy.audiences : [];
  const read = await readItems(file, { ...names, audiences }, kept?.files);
  const { stored, problems } = read;
  const outline = outlineOf(stored.map(({ item }) => item));
  if ('problems' in outline) problems.push(...outline.problems.map((problem) => problem.message));
  const deep = 'problems' in outline ? null : tooDeepIn(outline);
  if (deep) problems.push(`"${deep.title}" stands more than ${DEEPEST_ITEM} deep. Move it further up.`);
  problems.push(...fieldProblems(names), ...peopleProblems(file.people ?? [], names));
  problems.push(...wishesProblems(file, names, stored));
  const strangers = file.board.filter((one) => !file.people?.some((person) => person.id === one));
  const shopRead = file.shop ? termsOf(file.shop, { ...names, audiences }, stored) : null;
  problems.push(...(shopRead?.problems ?? []));
  problems.push(...strangers.map((one) => `board: there is no person "${one}".`));
  if ('problems' in outline || problems.length > 0) return { problems: problems.slice(0, MOST_PROBLEMS) };
  if ('problems' in texts) return texts;
  if (draftTexts && 'problems' in draftTexts) return draftTexts;
  const policies = { ...(kept && { draft: kept.draft, live: kept.live }), gone: new Set(file.gone) };
  const given = readPolicy(texts.policy, { outline, names, ...policies });
  const draft = draftTexts === null ? given : readPolicy(draftTexts.policy, { outline, names, ...policies });
  for (const one of [given, draft]) {
    if ('problems' in one)
      return { problems: one.problems.map(({ gate, message }) => `gate ${gate ?? '?'}: ${message}`) };
  }
  if ('problems' in given || 'problems' in draft) return { problems: [] };
  const { bytes, formerly } = read;
  return {
    outline,
    byGroup: byGroupIn(stored),
    byProduct: byProductIn(shopRead?.terms ?? [...(kept?.shop.values() ?? [])], names),
    terms: shopRead?.terms ?? null,
    stored,
    names,
    people: file.people?.map(recordIn) ?? null,
    policy: given.policy,
    draft: draft.policy,
    bytes,
    formerly,
    file,
  };
}

/** Where in a file something is, with the id of what it is in: `items.12 (visit).address`. */
function placeIn(input: unknown, path: readonly PropertyKey[]): string {
  let at: unknown = input;
  const steps = path.map((step) => {
    at = (at as Record<PropertyKey, unknown> | null | undefined)?.[step];
    const id = typeof step === 'number' && (at as { id?: unknown } | null | undefined)?.id;
    return typeof id === 'string' ? `${String(step)} (${id})` : String(step);
  });
  return steps.join('.') || 'the file';
}

/** The names in a file. Its ids are known to be well formed, and names of different kinds can't be mixed up after this. */
function namesIn(file: SiteFileRead): SiteNames {
  const ids = <T extends { readonly id: string }>(list: readonly T[]) =>
    list.map((one) => ({ ...one, id: asId<never>(one.id) }));
  const called = (kind: 'course' | 'unit' | 'activity') =>
    file.items.flatMap((item) =>
      item.kind === kind ? [{ id: asId<ItemId>(item.id), name: item.title }] : [],
    );
  return {
    levels: ids(file.levels),
    roles: ids(file.roles),
    groups: ids(file.groups),
    products: ids(file.products),
    fields: ids(file.fields),
    courses: called('course'),
    units: called('unit'),
    activities: called('activity'),
    passphrases: ids(file.passphrases.map(({ id, name }) => ({ id, name }))),
  };
}

/** What products are sold for and give, with conditions read; and what is wrong with it. */
function termsOf(
  { products }: NonNullable<SiteFileRead['shop']>,
  vocabulary: Vocabulary,
  stored: readonly StoredItem[],
): { readonly terms: NonNullable<SiteInFile['terms']>; readonly problems: readonly string[] } {
  const problems: string[] = [];
  const items = new Map(stored.map(({ item }) => [item.id, item]));
  const terms = products.flatMap(({ product: id, ...read }) => {
    const product = vocabulary.products.find((one) => one.id === id);
    if (!product) {
      problems.push(`shop: there is no product "${id}".`);
      return [];
    }
    const prices = read.prices.map(({ who, ...price }) => {
      const parsed =
        typeof who === 'string' ? parseCondition(who, vocabulary) : { ok: true as const, condition: who };
      if (!parsed.ok)
        problems.push(
          `${product.name}: line ${parsed.error.line}, column ${parsed.error.column}: ${parsed.error.message}`,
        );
      return { ...price, who: parsed.ok ? parsed.condition : nobody };
    });
    const found = termsIn({ ...read, prices });
    problems.push(
      ...termsProblems(product, found, vocabulary, { items }).map(
        ({ message }) => `${product.name}: ${message}`,
      ),
    );
    return [{ product: product.id, terms: found }];
  });
  if (new Set(products.map(({ product }) => product)).size < products.length)
    problems.push('shop: a product stands there twice.');
  return { terms, problems };
}

/** What how a site looks and what new members start with name, and is not there. */
function wishesProblems(
  { look, starts }: SiteFileRead,
  names: SiteNames,
  stored: readonly StoredItem[],
): readonly string[] {
  const picture = look?.picture ?? null;
  const isPicture = stored.some(
    ({ item }) => item.id === picture && item.kind === 'file' && item.mediaType.startsWith('image/'),
  );
  return [
    ...(picture !== null && !isPicture ? [`look: there is no picture "${picture}".`] : []),
    ...(starts ? startsProblems(starts, names).map((message) => `starts: ${message}`) : []),
  ];
}

const nobody: Condition = { kind: 'any', of: [] };

const fieldProblems = (names: SiteNames): string[] =>
  names.fields
    .filter(({ type, choices }) => (type === 'choice') !== choices.length > 0)
    .map(({ name, type }) =>
      type === 'choice'
        ? `${name}: give it something to choose from.`
        : `${name}: only choices have choices.`,
    );

type PersonInFile = NonNullable<SiteFileRead['people']>[number];

interface ItemsRead {
  readonly stored: StoredItem[];
  readonly bytes: Map<ItemId, Uint8Array>;
  readonly formerly: Map<Address, ItemId>;
  readonly problems: string[];
}

/** What no page says. */
const nothingTaught = { quiz: undefined, task: undefined, doneWhen: undefined };

/** The items of a file, their sections among them. */
async function readItems(
  { items: list, shared }: Pick<SiteFileRead, 'items' | 'shared'>,
  vocabulary: Vocabulary,
  files?: Kept['files'],
): Promise<ItemsRead> {
  const into: ItemsRead = { stored: [], bytes: new Map(), formerly: new Map(), problems: [] };
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
      case 'unit':
        add({ ...base, kind: 'unit' });
        break;
      case 'page':
      case 'post':
      case 'course':
      case 'activity': {
        const address = readAddress(entry.address, entry.title, into.problems);
        const item: Item =
          entry.kind === 'activity'
            ? { ...base, kind: 'activity', address, activity: entry.activity }
            : { ...base, kind: entry.kind, address };
        const { quiz, task, doneWhen } = entry.kind === 'activity' ? entry : nothingTaught;
        const enrolling = entry.kind === 'course' ? entry.enrolling : undefined;
        add(item, {
          summary: entry.summary,
          body: '',
          ...(doneWhen && { doneWhen }),
          ...(task && { task }),
          ...(quiz && { quiz }),
          ...(enrolling && { enrolling: enrollingOf(enrolling) }),
        });
        const wrong = enrolling && enrollingProblem(enrollingOf(enrolling), vocabulary);
        if (wrong) into.problems.push(`${entry.title}: ${wrong}`);
        for (const { question, message } of quiz ? quizProblems(quiz) : [])
          into.problems.push(
            `${entry.title}${question === null ? '' : `, question ${question + 1}`}: ${message}`,
          );
        for (const former of entry.formerly)
          into.formerly.set(readAddress(former, entry.title, into.problems), base.id);
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
        const bytes = new Uint8Array(Buffer.from(entry.data, 'base64'));
        const there = files?.get(base.id);
        const { picture } = there?.content ?? {};
        const file =
          there?.item.kind === 'file' &&
          there.item.name === entry.name &&
          Buffer.compare(there.bytes, bytes) === 0
            ? { bytes, name: there.item.name, mediaType: there.item.mediaType, picture: picture ?? null }
            : await readFile(bytes, entry.name);
        if ('problem' in file) into.problems.push(`${entry.title}: ${file.problem}`);
        else addFile(file, entry.alt, base, into);
        break;
      }
      case 'link':
        add({ ...base, kind: 'link', target: entry.target });
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
  const root = asId<ItemId>(list.find(({ kind }) => kind === 'site')?.id ?? '');
  for (const [place, { section, ...stands }] of shared.entries()) {
    const read = readStands(stands, vocabulary);
    if ('problems' in read)
      into.problems.push(...read.problems.map((message) => `${section.id}: ${message}`));
    else into.stored.push(storedSection(section, root, list.length + place, vocabulary, read.shared));
  }
  const items = new Map(into.stored.map(({ item }) => [item.id as string, item]));
  const itemOf = (id: string) => items.get(id);
  into.problems.push(
    ...[
      ...sectionProblems(sections, vocabulary, itemOf),
      ...sectionProblems(
        shared.map(({ section }) => section),
        vocabulary,
        itemOf,
        true,
      ),
    ].map(({ section, line, message }) => `${section}${line === null ? '' : `, line ${line}`}: ${message}`),
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
  const vocabulary = { ...names, audiences: [] };
  const seen = new Set<string>();
  return list.flatMap((person) => {
    const problems = [
      ...holdingsOf(person)
        .filter(({ kind, id }) => nameOfId(vocabulary, kind, id) === null)
        .map(({ kind, id }) => `there is no ${kind} "${id}"`),
      ...recordsOfNothing(person, names).map(({ key, id }) =>
        key === 'enrolments' ? `there is no course "${id}"` : `there is nothing to complete called "${id}"`,
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

const recordIn = ({ password: _, ...person }: PersonInFile): PersonRecord => {
  const record: PersonRecord = {
    ...person,
    id: asId(person.id),
    email: person.email.toLowerCase(),
    desk: person.desk && { ...person.desk, branch: person.desk.branch as ItemId | null },
    level: person.level === null ? null : asId<LevelId>(person.level),
    roles: [...new Set(person.roles)].map((role) => asId(role)),
    groups: [...new Set(person.groups)].map((group) => asId(group)),
    groupsSince: Object.fromEntries(
      Object.entries(person.groupsSince).filter(([group]) => person.groups.includes(group)),
    ),
    purchases: person.purchases.map((one) => ({ ...one, product: asId(one.product) })),
    enrolments: person.enrolments.map((one) => ({ ...one, course: asId(one.course) })),
    completions: person.completions.map((one) => ({ ...one, item: asId(one.item) })),
  };
  return { ...record, ...inOrder(record) };
};
