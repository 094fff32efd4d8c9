/**
 * The site in memory: one immutable value, made anew and swapped whole when something changes, so that a request sees
 * the old site or the new one and never a mixture, and asks the database for nothing.
 */
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
  type ItemId,
  itemNamesIn,
  type KeptNames,
  keptNames,
  type Outline,
  outlineOf,
  type PersonId,
  type Post,
  type ProductId,
  type Purchase,
  purchaseOf,
  SharingMap,
  type SiteNames,
  SortedMap,
  same,
} from '@/core';
import {
  type Content,
  type Database,
  type Draft,
  insertSettings,
  type Live,
  type PersonRecord,
  readBought,
  readItems,
  readNames,
  readOldAddresses,
  readPeople,
  readPolicies,
  readSettings,
  readSoldPlaces,
  readSomePeople,
  readTerms,
  readUnconfirmed,
  type Settings,
  type StoredItem,
  type StoredTerms,
} from '@/store';
import { type FactSource, type Person, personOf, recordOf } from './person';
import { newSettings } from './settings';
import { yieldToOthers } from './yielding';

/** Everything that decisions and pages need. */
export interface SiteState {
  readonly settings: Settings;
  readonly outline: Outline;
  readonly contents: ReadonlyMap<ItemId, Content>;
  /** Of each item; a change of one names the version it was based on. */
  readonly versions: ReadonlyMap<ItemId, number>;
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
  readonly people: SortedMap<PersonId, Person>;
  readonly draft: Draft & { readonly compiled: CompiledPolicy };
  readonly live: Live & { readonly compiled: CompiledPolicy };
}

/** Reads the whole site, or null when the database holds none yet. */
export async function readSiteState(db: Database): Promise<SiteState | null> {
  const policies = await readPolicies(db);
  if (!policies) return null;
  const settings = (await readSettings(db)) ?? (await begunSettings(db));
  const items = await readSiteItems(db);
  const { outline } = items;
  const names = namesWith(await readNames(db), outline);
  const shop = await readShop(db, names);
  const bought = SharingMap.of(boughtIn(await readBought(db), settings));
  const unconfirmed = SharingMap.of([...(await readUnconfirmed(db))].map((id) => [id, true as const]));
  const source = { settings, byGroup: items.byGroup, ...shop, bought, unconfirmed };
  const people = peopleOf(await readPeople(db), source);
  await yieldToOthers();
  const draft = { ...policies.draft, compiled: compile(policies.draft.policy, outline, names) };
  await yieldToOthers();
  const live = { ...policies.live, compiled: compile(policies.live.policy, outline, names) };
  return { ...source, ...items, names, people, draft, live };
}

type SiteItems = Pick<SiteState, 'outline' | 'contents' | 'versions' | 'oldAddresses' | 'posts' | 'byGroup'>;

async function readSiteItems(db: Database): Promise<SiteItems> {
  const stored = await readItems(db);
  const outline = outlineOf(stored.map(({ item }) => item));
  if ('problems' in outline) throw new Error(outline.problems.map((problem) => problem.message).join('\n'));
  return {
    outline,
    contents: new Map(stored.map(({ item, content }) => [item.id, content])),
    versions: new Map(stored.map(({ item, version }) => [item.id, version])),
    oldAddresses: await readOldAddresses(db),
    posts: stored
      .flatMap(({ item }) => (item.kind === 'post' && item.published ? [item] : []))
      .sort(latestFirst),
    byGroup: byGroupIn(stored),
  };
}

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
  { graceDays }: Settings,
): ReadonlyMap<PersonId, readonly Purchase[]> {
  const found = new Map<PersonId, Purchase[]>();
  for (const { person, state, ...order } of orders) {
    const purchase = purchaseOf(order, state, graceDays);
    if (purchase === null) continue;
    const list = found.get(person);
    if (list) list.push(purchase);
    else found.set(person, [purchase]);
  }
  return found;
}

/** How one comes into a course. */
export const enrollingIn = ({ contents }: Pick<SiteState, 'contents'>, course: ItemId): Enrolling =>
  contents.get(course)?.enrolling ?? enrollingByHand;

/** Courses, units and activities are called by their titles. */
const namesWith = (kept: KeptNames, outline: Outline): SiteNames => ({ ...kept, ...itemNamesIn(outline) });

const latestFirst = (a: Post, b: Post): number =>
  (b.facts?.date ?? '').localeCompare(a.facts?.date ?? '') || a.title.localeCompare(b.title);

/** A site from before there were settings gets its own. */
async function begunSettings(db: Database): Promise<Settings> {
  const settings = newSettings('UTC');
  await insertSettings(db, settings);
  return settings;
}

const peopleOf = (records: readonly PersonRecord[], source: FactSource): SiteState['people'] =>
  SortedMap.of(
    records.map((record) => personOf(record, source)),
    { keyOf: ({ id }) => id, order: byName },
  );

/** The same site with its policies as they are now in the database. */
export async function withPolicies(state: SiteState, db: Database): Promise<SiteState> {
  const policies = await readPolicies(db);
  if (!policies) throw new Error('The policies are gone from the database.');
  const { draft, live } = policies;
  const { outline, names } = state;
  return {
    ...state,
    draft:
      draft.version === state.draft.version
        ? state.draft
        : { ...draft, compiled: compile(draft.policy, outline, names) },
    live:
      live.revision === state.live.revision
        ? state.live
        : { ...live, compiled: compile(live.policy, outline, names) },
  };
}

/** The same site with its items, texts and policies as they are now in the database. */
export async function withItems(state: SiteState, db: Database): Promise<SiteState> {
  const items = await readSiteItems(db);
  const { draft, live } = await withPolicies(state, db);
  const found = namesWith(keptNames(state.names), items.outline);
  // What is asked with the same names may be kept.
  const names = same(found, state.names) ? state.names : found;
  return {
    ...state,
    ...items,
    names,
    // Who is in a course through a group follows from what the course says.
    people: same([...items.byGroup], [...state.byGroup])
      ? state.people
      : peopleOf([...state.people.values()].map(recordOf), { ...state, ...items }),
    draft: { ...draft, compiled: compile(draft.policy, items.outline, names) },
    live: { ...live, compiled: compile(live.policy, items.outline, names) },
  };
}

/** What a change of people touched: those who are not as they were, and whether the names that describe them are. */
export interface Touched {
  readonly people: readonly PersonId[];
  readonly names: boolean;
  /** Whether products, or how much of them is left, may not be as they were. */
  readonly shop?: boolean;
}

/**
 * The same site with those people as they are now in the database, and with the names if those changed. Nothing is compiled
 * that asks for the same as before.
 */
export async function withPeople(state: SiteState, db: Database, touched: Touched): Promise<SiteState> {
  const names = touched.names ? namesWith(await readNames(db), state.outline) : state.names;
  const shop = touched.names || touched.shop ? await readShop(db, names) : null;
  let next: SiteState = { ...state, ...shop, names };
  const ids = touched.people;
  if (ids.length > 0) {
    const [orders, unconfirmed, found] = await Promise.all([
      readBought(db, ids),
      readUnconfirmed(db, ids),
      readSomePeople(db, ids),
    ]);
    const bought = boughtIn(orders, state.settings);
    const records = new Map(found.map((record) => [record.id, record]));
    next = {
      ...next,
      bought: state.bought.with(ids.map((id) => [id, bought.get(id) ?? null])),
      unconfirmed: state.unconfirmed.with(ids.map((id) => [id, unconfirmed.has(id) || null])),
    };
    // Whoever was not found is gone.
    const anew = ids.map((id): [PersonId, Person | null] => {
      const record = records.get(id);
      return [id, record ? personOf(record, next) : null];
    });
    next = { ...next, people: state.people.with(anew) };
  }
  // What purchases give follows from what products say.
  if (shop !== null)
    next = same([...shop.byProduct], [...state.byProduct])
      ? { ...next, byProduct: state.byProduct }
      : { ...next, people: peopleOf([...next.people.values()].map(recordOf), next) };
  const { outline, draft, live } = state;
  if (!touched.names)
    // Pages are kept for as long as a policy is, and say what things cost.
    return shop !== null && showsOther(shop, state)
      ? { ...next, live: { ...live, compiled: { ...live.compiled } } }
      : next;
  return {
    ...next,
    draft: { ...draft, compiled: compile(draft.policy, outline, names) },
    live: { ...live, compiled: compile(live.policy, outline, names) },
  };
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
const byName = (a: Person, b: Person): number => compare(a.name, b.name) || compare(a.id, b.id);
