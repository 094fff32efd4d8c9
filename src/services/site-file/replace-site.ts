/**
 * A file over a site that is there: first what it would do, then all of it or nothing. Items, names and gates become those
 * of the file. People of the file are added, or changed where they are there already; nobody is taken away.
 */
import { createHash, randomUUID } from 'node:crypto';
import { z } from 'zod';
import {
  type Address,
  difference,
  type Item,
  type ItemId,
  isShared,
  namesOf,
  type PersonId,
  type Policy,
  type SiteNames,
  same,
} from '@/core';
import {
  deleteItems,
  deleteSessionsOf,
  forgetPassphrase,
  insertChange,
  insertItems,
  type PeopleChange,
  type PersonRecord,
  readFileBytes,
  readPasswordHashes,
  replaceTerms,
  type StoredItem,
  setPassphraseHash,
  setPasswordHash,
  updateItem,
  updateSettings,
  writeBothPolicies,
} from '@/store';
import { has, holdersAtTill, KINDS, writeChange } from '../people';
import type { ExpectationReport } from '../policy';
import type { SiteState, Trivet } from '../running';
import { type Administrator, recordOf, requirePermission } from '../running';
import { contentOf } from '../view';
import { writeWhatItemsHold } from '../writing';
import { expectationsInFile } from './file-expectations';
import { hashesIn } from './import-site';
import { type OpenedItem, openedByFile, openedTo } from './opened-by-file';
import { readSiteFile, type SiteInFile } from './read-site-file';
import { wishesIn } from './wishes-in';

/** What a file would do to the site. */
export interface ImportReport {
  /** Names the site as it was looked at; what is then done has to name it. */
  readonly basis: string;
  readonly items: {
    readonly added: readonly string[];
    readonly changed: readonly string[];
    readonly removed: readonly string[];
  };
  readonly names: { readonly added: readonly string[]; readonly removed: readonly string[] };
  readonly people: { readonly added: readonly string[]; readonly changed: readonly string[] } | null;
  /** The live gates before and after. */
  readonly before: Policy;
  readonly after: Policy;
  /** How many gates and rules differ. */
  readonly changes: number;
  /** What is closed to somebody and would be open to them, with to whom. */
  readonly opens: readonly (OpenedItem & { readonly to: string })[];
  /** What has become of what the file expects. */
  readonly expectations: readonly ExpectationReport[];
}

export type ImportAnswer =
  | { readonly kind: 'report'; readonly report: ImportReport }
  | { readonly kind: 'wrong'; readonly problems: readonly string[] }
  /** Something changed since the dry run. */
  | { readonly kind: 'stale'; readonly message: string }
  | { readonly kind: 'done'; readonly report: ImportReport };

const request = z.strictObject({
  file: z.unknown(),
  /** The basis of the dry run that was looked at; null for a dry run. */
  basis: z.string().max(100).nullable(),
});

/** A dry run, or the import itself once a dry run was looked at. */
export async function replaceSite(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  now: Date,
): Promise<ImportAnswer> {
  requirePermission(administrator, 'everything');
  const parsed = request.safeParse(input);
  if (!parsed.success) return { kind: 'wrong', problems: ['Send a file, and the dry run that it follows.'] };
  return fileOverSite(trivet, parsed.data.file, parsed.data.basis, administrator.name, now);
}

/** The same for whoever has the data folder to themselves. */
export async function fileOverSite(
  trivet: Trivet,
  input: unknown,
  basis: string | null,
  author: string,
  now: Date,
): Promise<ImportAnswer> {
  const { state } = trivet;
  const site = await readSiteFile(input, {
    draft: state.draft,
    live: state.live,
    files: await filesOf(trivet),
    shop: state.shop,
  });
  if ('problems' in site) return { kind: 'wrong', problems: site.problems };
  const problems = problemsWith(site, state, now);
  if (problems.length > 0) return { kind: 'wrong', problems };
  const report = {
    ...reportOn(site, state),
    opens: (await openedByFile(site, state, now)).map((one) => ({ ...one, to: openedTo(one) })),
    expectations: await expectationsInFile(site, now),
  };
  if (basis === null) return { kind: 'report', report };
  const hashes = await hashesIn(site.file, state.settings.passphraseSalt);
  const done = await trivet.change(async (current) => {
    if (basisOf(current) !== basis) return false;
    for (const person of await write(trivet, site, hashes, current, author, now))
      trivet.forgetSessionsOf(person);
    for (const { id } of hashes.passphrases) trivet.forgetSessionsKnowing(id);
    return true;
  });
  return done
    ? { kind: 'done', report }
    : {
        kind: 'stale',
        message: 'The site was changed since this was looked at. Look again; nothing was taken in.',
      };
}

async function filesOf({ db, state }: Trivet) {
  const files = new Map<ItemId, StoredItem & { readonly bytes: Uint8Array }>();
  for (const item of state.outline.items.values()) {
    const bytes = item.kind === 'file' ? await readFileBytes(db, item.id) : null;
    if (bytes) files.set(item.id, { item, content: contentOf(state, item.id), bytes });
  }
  return files;
}

/** The state that a dry run looked at, as a text. */
const basisOf = ({ draft, live, versions, people, names, shop }: SiteState): string =>
  createHash('sha256')
    .update(
      JSON.stringify([
        draft.version,
        live.revision,
        [...versions],
        names,
        [...shop.values()],
        [...people.values()].map(recordOf),
      ]),
    )
    .digest('base64url');

/** What keeps a file from coming to this site, though there is nothing wrong with it. */
function problemsWith(site: SiteInFile, state: SiteState, now: Date): readonly string[] {
  const { people, names } = state;
  const problems: string[] = [];
  const after = new Map<string, PersonRecord>([...people].map(([id, person]) => [id, recordOf(person)]));
  for (const person of site.people ?? []) after.set(person.id, person);
  const byMail = new Map<string, string>();
  for (const { email, name, id } of after.values()) {
    const other = byMail.get(email);
    if (other !== undefined)
      problems.push(`people: ${name} (${id}) and ${other} would have one mail address.`);
    byMail.set(email, `${name} (${id})`);
  }
  if (![...after.values()].some(({ desk }) => desk?.right === 'owner'))
    problems.push('people: nobody would own the site any more. Leave an owner as they are.');
  for (const { kind, name, id } of goneNames(names, site.names)) {
    const paid = kind === 'product' ? holdersAtTill(state, id, now) : 0;
    if (paid > 0)
      problems.push(
        `product "${name}" is not in the file, and ${paid} ${paid === 1 ? 'person has' : 'people have'} paid for it and have it still. Put it into the file.`,
      );
    const holders = [...after.values()].filter((person) => has(person, kind, id));
    if (holders.length > 0)
      problems.push(
        `${kind} "${name}" is not in the file, and ${holders.length} ${holders.length === 1 ? 'person has' : 'people have'} it. Put it into the file, or take it from them first.`,
      );
  }
  return problems.slice(0, 50);
}

const goneNames = (before: SiteNames, after: SiteNames) =>
  KINDS.flatMap((kind) => {
    const kept = new Set(namesOf({ ...after, audiences: [] }, kind).map(({ id }) => id));
    return namesOf({ ...before, audiences: [] }, kind)
      .filter(({ id }) => !kept.has(id))
      .map(({ id, name }) => ({ kind, id, name }));
  });

/** The items of a file beside those of the site. */
function itemsBeside(site: SiteInFile, state: SiteState) {
  const inFile = new Map(site.stored.map((one) => [one.item.id, one]));
  const added: StoredItem[] = [];
  const changed: StoredItem[] = [];
  for (const one of site.stored) {
    const item = state.outline.items.get(one.item.id);
    if (!item) added.push(one);
    else if (!same(comparable(item), comparable(one.item)) || !same(contentOf(state, item.id), one.content))
      changed.push(one);
  }
  const removed = [...state.outline.items.values()].filter(({ id }) => !inFile.has(id));
  return { added, changed, removed, moved: movedIn(site, state) };
}

/**
 * Ranks are places among siblings; in a file they are places in the list, so only the order says something. What is in a
 * course is found by the outline.
 */
const comparable = ({ rank: _, within: __, ...item }: Item): unknown => item;

/** Items whose place among their siblings is another one. */
function movedIn(site: SiteInFile, { outline }: SiteState): readonly ItemId[] {
  // Shared sections stand below the site with its pages, and in an order of their own.
  const order = (list: readonly Item[] = []) =>
    [...list.filter((item) => !isShared(item)), ...list.filter(isShared)].map(({ id }) => id);
  return [...site.outline.children].flatMap(([parent, children]) => {
    const there = order(outline.children.get(parent)).filter((id) => site.outline.items.has(id));
    const now = order(children).filter((id) => outline.items.has(id));
    return same(there, now) ? [] : now;
  });
}

function reportOn(site: SiteInFile, state: SiteState): Omit<ImportReport, 'opens' | 'expectations'> {
  const { added, changed, removed, moved } = itemsBeside(site, state);
  const told = ({ kind, title }: Item) => `${title} (${kind})`;
  const rearranged = new Set<string>(moved);
  for (const one of changed) rearranged.delete(one.item.id);
  const names = (gone: ReturnType<typeof goneNames>) => gone.map(({ kind, name }) => `${name} (${kind})`);
  const people = site.people && {
    added: site.people.filter(({ id }) => !state.people.has(id)).map(({ name }) => name),
    changed: site.people
      .filter((person) => {
        const before = state.people.get(person.id);
        return before && !same(recordOf(before), person);
      })
      .map(({ name }) => name),
  };
  return {
    basis: basisOf(state),
    items: {
      added: added.map(({ item }) => told(item)),
      changed: [
        ...changed.map(({ item }) => told(item)),
        ...site.stored
          .filter(({ item }) => rearranged.has(item.id))
          .map(({ item }) => `${told(item)}: its place`),
      ],
      removed: removed.map(told),
    },
    names: {
      added: names(goneNames(site.names, state.names)),
      removed: names(goneNames(state.names, site.names)),
    },
    people,
    before: state.live.policy,
    after: site.policy,
    changes: difference(state.live.policy, site.policy).length,
  };
}

/** Writes all of it; answers who has another password by it, and is signed out. */
async function write(
  trivet: Trivet,
  site: SiteInFile,
  hashes: Awaited<ReturnType<typeof hashesIn>>,
  state: SiteState,
  author: string,
  now: Date,
): Promise<readonly PersonId[]> {
  const { added, removed } = itemsBeside(site, state);
  const isNew = new Set(added.map(({ item }) => item.id));
  const people: PeopleChange[] = (site.people ?? []).flatMap((after) => {
    const before = state.people.get(after.id);
    const change = { before: before ? recordOf(before) : null, after };
    return same(change.before, change.after) ? [] : [change];
  });
  const names = { before: state.names, after: site.names };
  return trivet.db.transaction(async (tx) => {
    const { timeZone, journal, shop, signUp } = site.file;
    await updateSettings(tx, {
      timeZone,
      journal: journal.keeps,
      journalDays: journal.days,
      ...(shop && { graceDays: shop.graceDays }),
      ...wishesIn(site.file),
      ...(signUp && { signUp: signUp.who, signUpDomains: signUp.domains }),
    });
    await writeChange(tx, people, names);
    if (site.terms) await replaceTerms(tx, site.terms);
    const kept = await readPasswordHashes(
      tx,
      hashes.passwords.map(({ id }) => id),
    );
    const others = hashes.passwords.filter(({ id, hash }) => kept[id] !== hash);
    for (const { id, hash } of others) {
      await setPasswordHash(tx, id, hash);
      await deleteSessionsOf(tx, id);
    }
    for (const { id, hash } of hashes.passphrases) {
      await setPassphraseHash(tx, id, hash);
      await forgetPassphrase(tx, id);
    }
    await deleteItems(
      tx,
      removed.map(({ id }) => id),
    );
    // Addresses may change hands within the file, so those that stay are first without theirs.
    const staying = site.stored.filter(({ item }) => !isNew.has(item.id));
    for (const one of staying)
      if ('address' in one.item)
        await updateItem(
          tx,
          { ...one, item: { ...one.item, address: `~${one.item.id}` as Address } },
          'follows',
        );
    for (const one of staying) await updateItem(tx, one, 'follows');
    await insertItems(tx, added);
    await writeWhatItemsHold(tx, site, site.names, site.policy);
    await writeBothPolicies(tx, {
      draft: site.draft,
      live: site.policy,
      author,
      note: 'A site file was taken in.',
    });
    if (people.length > 0 || !same(state.names, site.names))
      await insertChange(
        tx,
        {
          id: randomUUID(),
          by: author,
          summary: 'A site file was taken in',
          why: '',
          people,
          names,
          hashes: { people: await readPasswordHashes(tx, []), passphrases: {} },
          undone: false,
        },
        now,
      );
    return others.map(({ id }) => id);
  });
}
