/**
 * The site in memory: one immutable value, made anew and swapped whole when something changes, so that a request sees
 * the old site or the new one and never a mixture, and asks the database for nothing.
 */
import { group } from 'd3-array';
import {
  type Address,
  type ByGroup,
  type ByProduct,
  type CompiledPolicy,
  compile,
  type Enrolling,
  enrolledByGroup,
  enrollingByHand,
  type Grants,
  type Item,
  type ItemId,
  itemNamesIn,
  type KeptNames,
  keptNames,
  latestFirst,
  type Outline,
  outlineOf,
  outlineWith,
  PackedMap,
  type PersonId,
  type Post,
  type ProductId,
  type Purchase,
  purchaseOf,
  SharingMap,
  type SiteNames,
  same,
} from '@/core';
import {
  type Bought,
  type Changes,
  type Content,
  type Database,
  type Draft,
  insertSettings,
  type Live,
  type PersonAnew,
  packedPeople,
  packPerson,
  readBought,
  readItems,
  readNames,
  readOldAddresses,
  readPackedPeople,
  readPeopleAnew,
  readPolicies,
  readSettings,
  readSoldPlaces,
  readTerms,
  readUnconfirmed,
  type Settings,
  type Snapshot,
  type StoredItem,
  type StoredTerms,
  unpackPerson,
} from '@/store';
import { type FactSource, type Person, personOf } from './person';
import { newSettings } from './settings';
import { inTurns, yieldToOthers } from './yielding';

/** Everything that decisions and pages need. */
export interface SiteState {
  readonly settings: Settings;
  readonly outline: Outline;
  readonly contents: SharingMap<ItemId, Content>;
  /** Of each item; a change of one names the version it was based on. */
  readonly versions: SharingMap<ItemId, number>;
  /** Addresses that items had before. */
  readonly oldAddresses: ReadonlyMap<Address, ItemId>;
  /** Every post that is published, the latest first. */
  readonly posts: readonly Post[];
  /** What being in a group brings. */
  readonly byGroup: ByGroup;
  /** What products are sold for and give; those that nobody has said anything about are not in it. */
  readonly shop: ReadonlyMap<ProductId, StoredTerms>;
  /** The same, of what they give. */
  readonly byProduct: ByProduct;
  /** How many seats of tickets are somebody's own. */
  readonly seatsSold: ReadonlyMap<string, number>;
  /** What was bought at the till, by person. */
  readonly bought: SharingMap<PersonId, readonly Purchase[]>;
  /** Who has an account by buying, and never showed that the mailbox is theirs. */
  readonly unconfirmed: SharingMap<PersonId, true>;
  readonly names: SiteNames;
  /** In the order of their names. */
  readonly people: PackedMap<PersonId, Person>;
  readonly draft: Draft & { readonly compiled: CompiledPolicy };
  readonly live: Live & { readonly compiled: CompiledPolicy };
}

/**
 * Reads the whole site, or null when the database holds none yet; people from a snapshot, where one is given that is of this
 * moment.
 */
export async function readSiteState(
  db: Database,
  snapshot: Snapshot | null = null,
): Promise<SiteState | null> {
  const policies = await readPolicies(db);
  if (!policies) return null;
  const settings = (await readSettings(db)) ?? (await begunSettings(db));
  const items = await readSiteItems(db);
  const oldAddresses = await readOldAddresses(db);
  const { outline } = items;
  const names = namesWith(await readNames(db), outline);
  const shop = await readShop(db, names);
  const bought = SharingMap.of(boughtIn(await readBought(db), settings));
  const unconfirmed = SharingMap.of([...(await readUnconfirmed(db))].map((id) => [id, true as const]));
  const source = { settings, byGroup: items.byGroup, ...shop, bought, unconfirmed };
  const read = await peopleIn(snapshot?.texts ?? (await readPackedPeople(db)), source);
  const people = snapshot
    ? read.with((await readPeopleAnew(db, snapshot.changed)).map(lineOf), readBy(source))
    : read;
  await yieldToOthers();
  const draft = { ...policies.draft, compiled: compile(policies.draft.policy, outline, names) };
  await yieldToOthers();
  const live = { ...policies.live, compiled: compile(policies.live.policy, outline, names) };
  return { ...source, ...items, oldAddresses, names, people, draft, live };
}

type SiteItems = Pick<SiteState, 'outline' | 'contents' | 'versions' | 'posts' | 'byGroup'>;

async function readSiteItems(db: Database): Promise<SiteItems> {
  const stored = await readItems(db);
  const outline = outlineFrom(stored.map(({ item }) => item));
  const contents = SharingMap.of(stored.map(({ item, content }) => [item.id, content]));
  return {
    outline,
    contents,
    versions: SharingMap.of(stored.map(({ item, version }) => [item.id, version])),
    posts: postsIn(outline),
    byGroup: byGroupOf(outline, contents),
  };
}

function outlineFrom(items: readonly Item[]): Outline {
  const outline = outlineOf(items);
  if ('problems' in outline) throw new Error(outline.problems.map((problem) => problem.message).join('\n'));
  return outline;
}

const postsIn = ({ items }: Outline): readonly Post[] =>
  [...items.values()]
    .flatMap((item) => (item.kind === 'post' && item.published ? [item] : []))
    .sort((a, b) => latestFirst(a, b) || a.title.localeCompare(b.title));

const byGroupOf = ({ items }: Outline, contents: SiteState['contents']): ByGroup =>
  byGroupIn(
    [...items.values()].flatMap((item) => {
      const content = contents.get(item.id);
      return content ? [{ item, content }] : [];
    }),
  );

/** The same with some items as they are now in the database. What is said elsewhere than in an outline leaves it as it is. */
async function withItems(state: SiteState, db: Database, ids: readonly ItemId[]): Promise<SiteItems> {
  const read = new Map((await readItems(db, ids)).map((one) => [one.item.id, one]));
  const contents = state.contents.with(ids.map((id) => [id, read.get(id)?.content ?? null]));
  const versions = state.versions.with(ids.map((id) => [id, read.get(id)?.version ?? null]));
  const { outline } = state;
  const moves = ids.some((id) => {
    const before = outline.items.get(id);
    return !same(before && unplaced(before), read.get(id)?.item);
  });
  const changed = new Set(ids);
  const courses = ids.some((id) => (read.get(id)?.item ?? outline.items.get(id))?.kind === 'course');
  const there = [...read.values()].map(({ item }) => item);
  const kept = moves
    ? ((there.length === changed.size ? outlineWith(outline, there) : null) ??
      outlineFrom(
        [
          ...[...outline.items.values()].flatMap((one) => (changed.has(one.id) ? [] : unplaced(one))),
          ...there,
        ].sort((a, b) => compare(a.id, b.id)),
      ))
    : outline;
  return {
    outline: kept,
    contents,
    versions,
    posts: moves ? postsIn(kept) : state.posts,
    byGroup: courses ? byGroupOf(kept, contents) : state.byGroup,
  };
}

/** An item without its place in a course, which an outline gives it. */
const unplaced = (item: Item): Item => {
  if (item.within === undefined) return item;
  const { within: _, ...bare } = item;
  return bare;
};

/** The same outline, of which nothing is known that was made of the one before. */
const drawnAnew = ({ items }: Outline): Outline =>
  outlineFrom([...items.values()].map((item) => ({ ...unplaced(item) })));

/** What being in a group brings, as courses say it. */
export const byGroupIn = (stored: readonly StoredItem[]): ByGroup =>
  enrolledByGroup(
    stored.flatMap(({ item, content: { enrolling } }) =>
      item.kind === 'course' && enrolling ? [[item.id, enrolling] as const] : [],
    ),
  );

type Shop = Pick<SiteState, 'shop' | 'byProduct' | 'seatsSold'>;

async function readShop(db: Database, names: KeptNames): Promise<Shop> {
  const terms = await readTerms(db);
  return {
    shop: new Map(terms.map((one) => [one.product, one])),
    byProduct: byProductIn(terms, names),
    seatsSold: await readSoldPlaces(db),
  };
}

/** What products give, of what there is. What is gone is given to nobody. */
export function byProductIn(
  terms: readonly Pick<StoredTerms, 'product' | 'terms'>[],
  names: KeptNames,
): ByProduct {
  const ids = (list: readonly { readonly id: string }[]) => new Set(list.map(({ id }) => id));
  const [levels, roles, groups] = [ids(names.levels), ids(names.roles), ids(names.groups)];
  return new Map(
    terms.map(({ product, terms: { grants } }): [ProductId, Grants] => [
      product,
      {
        level: grants.level !== null && levels.has(grants.level) ? grants.level : null,
        roles: grants.roles.filter((role) => roles.has(role)),
        groups: grants.groups.filter((group) => groups.has(group)),
        enrolments: grants.enrolments,
      },
    ]),
  );
}

/** What orders give to those who made them. */
function boughtIn(
  orders: Awaited<ReturnType<typeof readBought>>,
  settings: Settings,
): ReadonlyMap<PersonId, readonly Purchase[]> {
  const found = new Map<PersonId, readonly Purchase[]>();
  for (const [person, theirs] of group(orders, (order) => order.person)) {
    const purchases = purchasesOf(theirs, settings);
    if (purchases) found.set(person, purchases);
  }
  return found;
}

/** What somebody’s orders give; null where that is nothing. */
function purchasesOf(orders: readonly Bought[], { graceDays }: Settings): readonly Purchase[] | null {
  const purchases = orders.flatMap((order) => purchaseOf(order, order.state, graceDays) ?? []);
  return purchases.length > 0 ? purchases : null;
}

/** How one comes into a course. */
export const enrollingIn = ({ contents }: Pick<SiteState, 'contents'>, course: ItemId): Enrolling =>
  contents.get(course)?.enrolling ?? enrollingByHand;

/** Courses, units and activities are called by their titles. */
const namesWith = (kept: KeptNames, outline: Outline): SiteNames => ({ ...kept, ...itemNamesIn(outline) });

/** A site from before there were settings gets its own. */
async function begunSettings(db: Database): Promise<Settings> {
  const settings = newSettings('UTC');
  await insertSettings(db, settings);
  return settings;
}

const peopleIn = (texts: Iterable<string>, source: FactSource): Promise<SiteState['people']> =>
  inTurns(PackedMap.steps(texts, { ...packedPeople, keyOf: ({ id }: Person) => id, read: readBy(source) }));

/** How a person is read of what is packed, with what makes facts now. */
const readBy =
  (source: FactSource) =>
  (line: string): Person =>
    personOf(unpackPerson(line), source);

/** Whoever was not found is gone. */
const lineOf = ({ id, record }: PersonAnew): readonly [PersonId, string | null] => [
  id,
  record && packPerson(record),
];

/**
 * The same site with what has changed as it is now in the database; null where that touches everybody, so that it takes less
 * to read everything. Nothing is compiled that asks for the same as before.
 */
export async function withChanges(
  state: SiteState,
  db: Database,
  changes: Changes,
): Promise<SiteState | null> {
  const { parts } = changes;
  const settings = parts.has('settings') ? await readSettings(db) : state.settings;
  if (settings?.shareKey !== state.settings.shareKey || settings.graceDays !== state.settings.graceDays)
    return null;
  const says = same(settings, state.settings) ? state.settings : settings;
  const items = changes.items.length > 0 ? await withItems(state, db, changes.items) : state;
  // What is drawn of an item is kept for as long as it is that item, and says it in the words that are set.
  const outline = says === state.settings ? items.outline : drawnAnew(items.outline);
  const oldAddresses = parts.has('addresses') ? await readOldAddresses(db) : state.oldAddresses;
  const kept = parts.has('names') ? await readNames(db) : keptNames(state.names);
  const found = outline === state.outline && !parts.has('names') ? state.names : namesWith(kept, outline);
  // What is asked with the same names may be kept.
  const names = same(found, state.names) ? state.names : found;
  const shop = parts.has('names') || parts.has('shop') ? await readShop(db, names) : state;
  const next: SiteState = {
    ...state,
    settings: says,
    outline,
    contents: items.contents,
    versions: items.versions,
    posts: outline === items.outline ? items.posts : postsIn(outline),
    // Facts that follow from the same stay.
    byGroup: same([...items.byGroup], [...state.byGroup]) ? state.byGroup : items.byGroup,
    oldAddresses,
    names,
    shop: shop.shop,
    byProduct: same([...shop.byProduct], [...state.byProduct]) ? state.byProduct : shop.byProduct,
    seatsSold: shop.seatsSold,
  };
  const policies =
    names !== state.names || outline !== state.outline || parts.has('policies')
      ? await policiesOf(state, db, next)
      : state;
  // What is drawn is kept for as long as a policy is, and says more than it does.
  const shows =
    next.settings !== state.settings ||
    items.contents !== state.contents ||
    oldAddresses !== state.oldAddresses ||
    showsOther(next, state);
  const renewed = <T extends Draft | Live>(policy: T & { readonly compiled: CompiledPolicy }) =>
    shows ? { ...policy, compiled: { ...policy.compiled } } : policy;
  return {
    ...(await withPeople(next, state, db, changes.people)),
    draft: renewed(policies.draft),
    live: renewed(policies.live),
  };
}

/** The policies as they are now in the database, for a site as it is now. */
async function policiesOf(
  before: SiteState,
  db: Database,
  { outline, names }: Pick<SiteState, 'outline' | 'names'>,
): Promise<Pick<SiteState, 'draft' | 'live'>> {
  const policies = await readPolicies(db);
  if (!policies) throw new Error('The policies are gone from the database.');
  const { draft, live } = policies;
  const asks = outline !== before.outline || names !== before.names;
  return {
    draft:
      !asks && draft.version === before.draft.version
        ? before.draft
        : { ...draft, compiled: compile(draft.policy, outline, names) },
    live:
      !asks && live.revision === before.live.revision
        ? before.live
        : { ...live, compiled: compile(live.policy, outline, names) },
  };
}

/** The same with some people as they are now in the database, and with everybody's facts where what they follow from changed. */
async function withPeople(
  state: SiteState,
  before: SiteState,
  db: Database,
  ids: readonly PersonId[],
): Promise<SiteState> {
  let next = state;
  if (ids.length > 0) {
    const anew = await readPeopleAnew(db, ids);
    next = {
      ...state,
      bought: state.bought.with(anew.map((one) => [one.id, purchasesOf(one.bought, state.settings)])),
      unconfirmed: state.unconfirmed.with(anew.map((one) => [one.id, one.unconfirmed || null])),
    };
    next = { ...next, people: state.people.with(anew.map(lineOf), readBy(next)) };
  }
  return next.byGroup === before.byGroup && next.byProduct === before.byProduct
    ? next
    : { ...next, people: next.people.readBy(readBy(next)) };
}

/** Whether what is sold is not what it was: its terms, or whether any of it is left. */
const showsOther = (after: Shop, before: Shop): boolean =>
  !same([...after.shop], [...before.shop]) ||
  [...after.shop.values()].some((one) => isSoldOut(after, one) !== isSoldOut(before, one));

/** Whether every seat of a product is somebody's own. */
export const isSoldOut = (
  { seatsSold }: Pick<Shop, 'seatsSold'>,
  { product, terms }: Pick<StoredTerms, 'product' | 'terms'>,
): boolean => terms.seats !== null && (seatsSold.get(product) ?? 0) >= terms.seats;

// As the database sorts them: by their letters, one after the other.
const compare = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);
