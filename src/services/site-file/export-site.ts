/**
 * A site as one file: everything on it, its people if asked for, and with them what is kept of their passwords and of
 * passphrases if that is asked for as well. No keys.
 */
import {
  type Addressed,
  type Condition,
  containerOf,
  type Gate,
  type Item,
  type ItemFacts,
  type ItemId,
  type Outline,
  type Policy,
  parseCondition,
  printCondition,
  same,
  sectionsOf,
  sharedIn,
  type Target,
  type Vocabulary,
  vocabularyOf,
  type What,
} from '@/core';
import { type PersonRecord, readFileBytes, readPassphraseHashes, readPasswordHashes } from '@/store';
import { startsNow } from '../forms';
import { goneIn } from '../policy';
import type { SiteState, Trivet } from '../running';
import { type Administrator, recordOf, requirePermission } from '../running';
import { contentOf } from '../view';
import { editedEnrolling, editedQuiz, editedSection, editedTask, writtenStands } from '../writing';
import { FORMAT, type ItemInFile, type SiteFile, VERSION } from './site-file-form';

/** Who is in a file: nobody, people who have to choose new passwords, or people who can sign in where it is taken in. */
export type PeopleInFile = 'nobody' | 'people' | 'people who can sign in';

/** The site as a file, for an owner. */
export function exportSite(
  trivet: Trivet,
  administrator: Administrator,
  who: PeopleInFile,
): Promise<SiteFile> {
  requirePermission(administrator, 'everything');
  return siteAsFile(trivet, who);
}

/** The site as a file, for whoever has its data folder to themselves. */
export async function siteAsFile(trivet: Trivet, who: PeopleInFile): Promise<SiteFile> {
  const { state } = trivet;
  const { names, live, draft, settings } = state;
  const hashes = who === 'people who can sign in' ? await hashesOf(trivet) : null;
  return {
    format: FORMAT,
    version: VERSION,
    timeZone: settings.timeZone,
    journal: { keeps: settings.journal, days: settings.journalDays },
    signUp: { who: settings.signUp, domains: [...settings.signUpDomains] },
    language: settings.language,
    letters: { ...settings.letters },
    look: settings.look && { ...settings.look },
    words: settings.words,
    starts: startsInFile(state),
    levels: plain(names.levels),
    roles: plain(names.roles),
    groups: plain(names.groups).map(({ open = false, ...group }) => ({ ...group, open })),
    products: plain(names.products),
    fields: plain(names.fields).map(({ choices, ...field }) => ({ ...field, choices: [...choices] })),
    passphrases: plain(names.passphrases).map((one) => ({
      ...one,
      ...hashOf(hashes?.passphrases, one.id, 'hash'),
    })),
    ...(hashes && { passphraseSalt: settings.passphraseSalt }),
    ...(who !== 'nobody' && {
      people: [...state.people.values()].map((person) => ({
        ...personInFile(recordOf(person), state),
        ...hashOf(hashes?.passwords, person.id, 'passwordHash'),
      })),
    }),
    items: await itemsInFile(trivet),
    shared: sharedIn(state.outline).map((section) => ({
      ...writtenStands(section.shared, state.outline, live.compiled.vocabulary),
      section: editedSection(section, contentOf(state, section.id), live.compiled.vocabulary),
    })),
    shop: {
      graceDays: settings.graceDays,
      products: [...state.shop.values()].map(({ product, terms: { prices, grants, ...terms } }) => ({
        product: product as string,
        ...terms,
        grants: {
          ...grants,
          roles: [...grants.roles],
          groups: [...grants.groups],
          enrolments: [...grants.enrolments],
        },
        prices: prices.map(({ who, ...price }) => ({ ...price, who: asText(who, live.compiled.vocabulary) })),
      })),
    },
    policy: policyInFile(live.policy, state),
    ...(!same(live.policy, draft.policy) && { draft: policyInFile(draft.policy, state) }),
    gone: [...new Set([live, draft].flatMap(({ policy }) => goneIn(policy, state.outline, names)))],
    board: [],
  };
}

/** What is kept of what people type. */
async function hashesOf({ db, state }: Trivet) {
  return {
    passwords: await readPasswordHashes(db, [...state.people.keys()]),
    passphrases: await readPassphraseHashes(
      db,
      state.names.passphrases.map(({ id }) => id),
    ),
  };
}

const hashOf = <K extends string>(
  hashes: Readonly<Record<string, string>> | undefined,
  id: string,
  key: K,
): Partial<Record<K, string>> => {
  const hash = hashes && Object.hasOwn(hashes, id) ? hashes[id] : undefined;
  return hash === undefined ? {} : ({ [key]: hash } as Record<K, string>);
};

/** Ids as the plain texts that they are in a file. */
const plain = <T extends { readonly id: string }>(list: readonly T[]): (Omit<T, 'id'> & { id: string })[] =>
  list.map((one) => ({ ...one, id: one.id as string }));

/** What names a course or an activity that is gone means nothing elsewhere, and stays here. */
const personInFile = (
  { desk, ...person }: PersonRecord,
  { outline }: SiteState,
): NonNullable<SiteFile['people']>[number] => ({
  ...person,
  desk: desk?.right === 'owner' ? { right: 'owner', branch: null } : desk && { ...desk, right: desk.right },
  roles: [...person.roles],
  groups: [...person.groups],
  purchases: [...person.purchases],
  enrolments: person.enrolments.filter(({ course }) => outline.items.has(course)),
  completions: person.completions.filter(({ item }) => outline.items.has(item)),
});

/** Items in an order that reads well: parents before what is below them, siblings by rank. */
async function itemsInFile(trivet: Trivet): Promise<SiteFile['items']> {
  const { state } = trivet;
  const { outline, oldAddresses } = state;
  const formerly = new Map<ItemId, string[]>();
  for (const [address, item] of oldAddresses) formerly.set(item, [...(formerly.get(item) ?? []), address]);
  const list: Item[] = [];
  const visit = (item: Item): void => {
    if (item.kind !== 'section') list.push(item);
    for (const child of outline.children.get(item.id) ?? []) visit(child);
  };
  const root = outline.items.get(outline.root);
  if (root) visit(root);
  const entries: SiteFile['items'] = [];
  for (const item of list) entries.push(await itemInFile(trivet, item, formerly.get(item.id) ?? []));
  return entries;
}

const factsInFile = ({ tags, ...facts }: ItemFacts): NonNullable<ItemInFile['facts']> => ({
  ...facts,
  ...(tags && { tags: [...tags] }),
});

async function itemInFile(trivet: Trivet, item: Item, formerly: string[]): Promise<ItemInFile> {
  const { state } = trivet;
  const { outline, live } = state;
  const content = contentOf(state, item.id);
  const { id, parent, title, published, facts } = item;
  const base = { id, parent, title, published, ...(facts && { facts: factsInFile(facts) }) };
  const addressed = ({ address }: Addressed) => ({
    address,
    summary: content.summary,
    sections: nestedOf(outline, item.id).map((section) =>
      editedSection(section, contentOf(state, section.id), live.compiled.vocabulary),
    ),
    formerly,
  });
  switch (item.kind) {
    case 'site':
      return { ...base, kind: 'site', body: content.body };
    case 'page':
    case 'post':
      return { ...base, kind: item.kind, ...addressed(item) };
    case 'course':
      return {
        ...base,
        kind: 'course',
        ...(content.enrolling && { enrolling: editedEnrolling(content.enrolling) }),
        ...addressed(item),
      };
    case 'activity':
      return {
        ...base,
        kind: 'activity',
        activity: item.activity,
        ...(content.doneWhen && { doneWhen: content.doneWhen }),
        ...(content.task && { task: editedTask(content.task) }),
        ...(content.quiz && { quiz: editedQuiz(content.quiz) }),
        ...addressed(item),
      };
    case 'unit':
      return { ...base, kind: 'unit' };
    case 'file':
      return {
        ...base,
        kind: 'file',
        name: item.name,
        alt: content.picture?.alt ?? '',
        data: Buffer.from((await readFileBytes(trivet.db, item.id)) ?? new Uint8Array()).toString('base64'),
      };
    case 'menu':
      return { ...base, kind: 'menu', place: item.place };
    case 'link':
      return { ...base, kind: 'link', target: item.target };
    case 'section':
      throw new Error('Sections stand in their pages.');
    default:
      return item satisfies never;
  }
}

/** The sections of a page in their order. */
const nestedOf = (outline: Outline, page: ItemId) =>
  sectionsOf(outline, page).filter((section) => containerOf(outline, section)?.id === page);

/** A policy with its conditions as text wherever the text reads back to the same, and without targets that are gone. */
function policyInFile(policy: Policy, { names, outline }: SiteState): unknown {
  const vocabulary = vocabularyOf(names, policy);
  const text = (condition: Condition) => asText(condition, vocabulary);
  const selected = (target: Target): unknown =>
    target.kind === 'selection' ? { ...target, where: text(target.where) } : target;
  const targets = (list: readonly Target[]) =>
    list.flatMap((target): readonly unknown[] =>
      target.kind === 'selection' || outline.items.has(target.item) ? [selected(target)] : [],
    );
  const whatInFile = (what: What) => ({ targets: targets(what.targets), except: targets(what.except) });
  const gate = ({ what, who, otherwise, ...rest }: Gate) => ({
    ...rest,
    what: whatInFile(what),
    who: text(who),
    otherwise: {
      cases: otherwise.cases.map(({ when, give }) => ({ when: text(when), give })),
      last: otherwise.last,
    },
  });
  return {
    gates: policy.gates.map(gate),
    audiences: policy.audiences.map(({ who, ...rest }) => ({ ...rest, who: text(who) })),
    turnAways: policy.turnAways,
    landings: policy.landings.map(({ when, ...rest }) => ({ ...rest, when: text(when) })),
    defaults: policy.defaults,
    // What an expectation names and is gone stays: without it something else would be expected.
    expectations: policy.expectations.map(({ who, what, ...rest }) => ({
      ...rest,
      who: text(who),
      what: { targets: what.targets.map(selected), except: what.except.map(selected) },
    })),
  };
}

function asText(condition: Condition, vocabulary: Vocabulary): string | Condition {
  const text = printCondition(condition, vocabulary);
  const read = parseCondition(text, vocabulary);
  return read.ok && same(read.condition, condition) ? text : condition;
}

/** What new members start with, as far as there still is such a thing. */
function startsInFile({ settings, names }: SiteState): NonNullable<SiteFile['starts']> {
  const { level, roles, groups, asks } = startsNow(settings.starts, names);
  return { level, roles: [...roles], groups: [...groups], asks: [...asks] };
}
