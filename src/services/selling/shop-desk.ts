/** The shop from the desk's side: products with what they are sold for and give, what they open today, and changing them. */
import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import {
  asId,
  counted,
  doubledIn,
  factsOf,
  type Gate,
  type GateId,
  gateAsOneSentence,
  type ItemId,
  isHeldOn,
  listed,
  nameOfId,
  noTerms,
  type PersonId,
  type ProductId,
  type ProductTerms,
  reachDifference,
  same,
  testsIn,
} from '@/core';
import { insertChange, readVouchers, takenPlaces, type Voucher, writeTerms, writeVoucher } from '@/store';
import { conditionShape, dayForm, id, termsIn, termsProblems, termsShape, tooDeep } from '../forms';
import { applyChange, type ChangeAnswer } from '../people';
import {
  type Administrator,
  byProductIn,
  type Person,
  personOf,
  plainRequest,
  recordOf,
  requirePermission,
  type SiteState,
  type Trivet,
  yielder,
} from '../running';
import { runningTill } from '../till';

/** An item that a product opens, as it is named. */
export interface NamedItem {
  readonly id: ItemId;
  readonly title: string;
}

export interface ProductAtDesk {
  readonly product: ProductId;
  readonly terms: ProductTerms;
  /** Goes up with every save; 0 where nothing was said yet. */
  readonly version: number;
  /** The live gates that ask for it. */
  readonly gates: readonly { readonly id: GateId; readonly sentence: string }[];
  /** What it opens to somebody who has nothing else. */
  readonly opens: readonly NamedItem[];
  /** How many have it today. */
  readonly have: number;
  /** How many seats are taken or held. */
  readonly taken: number;
}

export interface ShopAtDesk {
  readonly products: readonly ProductAtDesk[];
  readonly vouchers: readonly (Voucher & { readonly used: number })[];
  readonly graceDays: number;
  /** Whether the site has a till, and whether that is the one which stands in. */
  readonly till: 'none' | 'stand-in' | 'real';
  /** People who have something by hand that they have by what they bought as well. */
  readonly doubled: readonly {
    readonly person: PersonId;
    readonly name: string;
    readonly what: readonly string[];
  }[];
}

/** Everything about the shop. */
export async function shopAtDesk(
  trivet: Trivet,
  administrator: Administrator,
  now: Date,
): Promise<ShopAtDesk> {
  requirePermission(administrator, 'people');
  const { state, db } = trivet;
  const vouchers = await readVouchers(db);
  const till = runningTill();
  const { have, doubled } = await standingOf(state, now);
  return {
    products: await Promise.all(
      state.names.products.map(async ({ id: product }) => ({
        ...productAtDesk(state, product, now),
        have: have.get(product) ?? 0,
        taken: await takenPlaces(db, product),
      })),
    ),
    vouchers: await Promise.all(
      vouchers.map(async (one) => ({ ...one, used: await takenPlaces(db, one.id) })),
    ),
    graceDays: state.settings.graceDays,
    till: till === null ? 'none' : till.standIn ? 'stand-in' : 'real',
    doubled,
  };
}

function productAtDesk(
  state: SiteState,
  product: ProductId,
  now: Date,
): Omit<ProductAtDesk, 'taken' | 'have'> {
  const stored = state.shop.get(product);
  const { compiled } = state.live;
  return {
    product,
    terms: stored?.terms ?? noTerms,
    version: stored?.version ?? 0,
    gates: compiled.policy.gates
      .filter((gate) => asksFor(gate, product))
      .map((gate) => ({
        id: gate.id,
        sentence: gateAsOneSentence(gate, compiled.outline, compiled.vocabulary, compiled.policy.turnAways),
      })),
    opens: namedItems(state, openedBy(state, product, now)).filter(({ id: item }) =>
      standsAlone(state, item),
    ),
  };
}

const asksFor = ({ who }: Gate, product: ProductId): boolean =>
  testsIn(who).some(({ subject, fact }) => subject === product && FACTS_OF_PRODUCTS.includes(fact));
const FACTS_OF_PRODUCTS: readonly string[] = [
  'owns',
  'subscribed',
  'purchase',
  'ever owned',
  'trial',
  'voucher',
];

/** What somebody gets into by having a product and nothing else. */
function openedBy(state: SiteState, product: ProductId, now: Date): readonly ItemId[] {
  const request = plainRequest(state, now);
  const nothing = { groups: [], groupsSince: {} };
  const purchase = { product, on: request.today, until: null, state: 'paid' as const };
  return reachDifference(
    state.live.compiled,
    factsOf(nothing, state),
    factsOf({ ...nothing, purchases: [purchase] }, state),
    request,
  ).opens;
}

/** Whether an item is somewhere to go, and not a file in something else. */
export const standsAlone = ({ outline }: SiteState, item: ItemId): boolean => {
  const found = outline.items.get(item);
  return found?.kind !== 'file' || found.parent === outline.root;
};

const namedItems = ({ outline }: SiteState, ids: readonly ItemId[]): readonly NamedItem[] =>
  ids.map((one) => ({ id: one, title: outline.items.get(one)?.title ?? '' }));

const MOST_DOUBLED = 200;

/** How many have each product today, and who has something twice: all people in one go, with pauses. */
async function standingOf(
  state: SiteState,
  now: Date,
): Promise<{ readonly have: ReadonlyMap<ProductId, number>; readonly doubled: ShopAtDesk['doubled'] }> {
  const { today } = plainRequest(state, now);
  const { vocabulary } = state.live.compiled;
  const have = new Map<ProductId, number>();
  const doubled: ShopAtDesk['doubled'][number][] = [];
  const rest = yielder();
  for (const one of state.people.values()) {
    await rest();
    if (one.purchases.length === 0 && !state.bought.has(one.id)) continue;
    const { id: person, name, facts } = one;
    const products = new Set(
      (facts.purchases ?? []).filter((one) => isHeldOn(one, today)).map(({ product }) => product),
    );
    if (products.size === 0) continue;
    for (const product of products) have.set(product, (have.get(product) ?? 0) + 1);
    if (doubled.length < MOST_DOUBLED) {
      const what = doubledIn(facts, today).map(
        ({ kind, id: of }) => `${kind} ${nameOfId(vocabulary, kind, of) ?? ''}`,
      );
      if (what.length > 0) doubled.push({ person, name, what });
    }
  }
  return { have, doubled };
}

/** Leaves what people have twice to what they bought: what they have by hand of it is taken from them. */
export async function leaveToPurchases(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  now: Date,
): Promise<ChangeAnswer> {
  requirePermission(administrator, 'people');
  const parsed = z.array(id).min(1).max(MOST_DOUBLED).safeParse(input);
  if (!parsed.success) return { kind: 'wrong', message: 'Choose who that is to be done for.' };
  return applyChange(
    trivet,
    administrator,
    (state) => {
      const { today } = plainRequest(state, now);
      const people = parsed.data.flatMap((one) => {
        const person = state.people.get(asId<PersonId>(one));
        if (!person) return [];
        const twice = doubledIn(person.facts, today);
        const has = (kind: string, what: string | null) =>
          twice.some((origin) => origin.kind === kind && origin.id === what);
        const before = recordOf(person);
        const after = {
          ...before,
          level: has('level', before.level) ? null : before.level,
          roles: before.roles.filter((role) => !has('role', role)),
          groups: before.groups.filter((group) => !has('group', group)),
          enrolments: before.enrolments.filter(({ course }) => !has('course', course)),
        };
        return same(before, after) ? [] : [{ before, after }];
      });
      return {
        summary: `${counted(people.length, 'person', 'people')}: what they have twice is left to what they bought`,
        people,
        names: null,
      };
    },
    now,
  );
}

const saving = z.strictObject({
  product: id,
  version: z.int().min(0),
  terms: termsShape(conditionShape),
});

/** What a change of terms would do to those who have the product today. */
export interface TermsPreview {
  readonly have: number;
  readonly opens: readonly (NamedItem & { readonly people: number; readonly first: string })[];
  readonly closes: readonly (NamedItem & { readonly people: number; readonly first: string })[];
}

export type TermsAnswer =
  | { readonly kind: 'saved'; readonly version: number }
  | { readonly kind: 'preview'; readonly preview: TermsPreview }
  | {
      readonly kind: 'wrong';
      readonly problems: readonly { readonly at: string; readonly message: string }[];
    }
  /** Somebody else was quicker: what they wrote. */
  | { readonly kind: 'stale'; readonly terms: ProductTerms; readonly version: number };

/** Saves what a product is sold for and gives, or says beforehand what that would do. */
export async function saveTerms(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  preview: boolean,
  now: Date,
): Promise<TermsAnswer> {
  requirePermission(administrator, 'everything');
  if (tooDeep(input))
    return { kind: 'wrong', problems: [{ at: 'prices', message: 'A condition is nested too deep.' }] };
  const parsed = saving.safeParse(input);
  if (!parsed.success)
    return {
      kind: 'wrong',
      problems: parsed.error.issues.map(({ path, message }) => ({ at: placeOf(input, path), message })),
    };
  const { product: productId, version } = parsed.data;
  const { state } = trivet;
  const product = state.names.products.find((one) => one.id === productId);
  if (!product) return { kind: 'wrong', problems: [{ at: 'terms', message: 'That product is gone.' }] };
  const terms = termsIn(parsed.data.terms);
  const problems = termsProblems(product, terms, state.live.compiled.vocabulary, state.outline);
  if (problems.length > 0) return { kind: 'wrong', problems };
  if (preview) return { kind: 'preview', preview: await previewOf(state, product.id, terms, now) };
  return trivet.change(async (current): Promise<TermsAnswer> => {
    const before = current.shop.get(product.id)?.terms ?? noTerms;
    const saved = await trivet.db.transaction(async (tx) => {
      if (!(await writeTerms(tx, { product: product.id, terms, version }))) return false;
      await insertChange(
        tx,
        {
          id: randomUUID(),
          by: administrator.name,
          summary: `${product.name}: ${changedIn(before, terms)}`,
          why: '',
          people: [],
          names: null,
          hashes: { people: {}, passphrases: {} },
          undone: false,
        },
        now,
      );
      return true;
    });
    const stored = current.shop.get(product.id);
    return saved
      ? { kind: 'saved', version: version + 1 }
      : { kind: 'stale', terms: stored?.terms ?? noTerms, version: stored?.version ?? 0 };
  });
}

/** Where in the terms something is wrong, as the screen finds it. */
function placeOf(input: unknown, [, first = 'terms', second]: readonly PropertyKey[]): string {
  if (first !== 'prices' || typeof second !== 'number') return String(first);
  const price = (input as { terms?: { prices?: { id?: unknown }[] } }).terms?.prices?.[second];
  return `prices ${String(price?.id ?? second)}`;
}

function changedIn(before: ProductTerms, after: ProductTerms): string {
  const parts = (
    [
      ['prices', 'prices'],
      ['grants', 'what it gives'],
      ['about', 'its words'],
      ['page', 'its page'],
      ['seats', 'seats'],
      ['day', 'its day'],
      ['sold', after.sold ? 'is sold' : 'is not sold any more'],
    ] as const
  ).flatMap(([key, words]) => (same(before[key], after[key]) ? [] : [words]));
  return parts.length === 0 ? 'as it was' : listed(parts);
}

async function previewOf(
  state: SiteState,
  product: ProductId,
  terms: ProductTerms,
  now: Date,
): Promise<TermsPreview> {
  const request = plainRequest(state, now);
  const byProduct = new Map([...state.byProduct, ...byProductIn([{ product, terms }], state.names)]);
  const holders = [...state.people.values()].filter(({ facts }) =>
    (facts.purchases ?? []).some((one) => one.product === product && isHeldOn(one, request.today)),
  );
  const opens = new Map<ItemId, Person[]>();
  const closes = new Map<ItemId, Person[]>();
  const rest = yielder();
  for (const person of holders) {
    const after = personOf(recordOf(person), { ...state, byProduct }).facts;
    const difference = reachDifference(state.live.compiled, person.facts, after, request);
    for (const item of difference.opens) opens.set(item, [...(opens.get(item) ?? []), person]);
    for (const item of difference.closes) closes.set(item, [...(closes.get(item) ?? []), person]);
    await rest();
  }
  const told = (found: ReadonlyMap<ItemId, readonly Person[]>) =>
    [...found]
      .filter(([item]) => standsAlone(state, item))
      .map(([item, people]) => ({
        id: item,
        title: state.outline.items.get(item)?.title ?? '',
        people: people.length,
        first: people[0]?.name ?? '',
      }));
  return { have: holders.length, opens: told(opens), closes: told(closes) };
}

const voucherForm = z.strictObject({
  id: id.nullable(),
  code: z
    .string()
    .trim()
    .toUpperCase()
    .min(6, 'A code has at least six letters, so that nobody guesses it.')
    .max(40, 'A code has at most 40 letters.')
    .regex(/^[A-Z0-9-]+$/, 'A code is made of letters, digits and hyphens.'),
  products: z.array(id).max(100),
  percent: z.int('Whole percent.').min(1, 'A voucher takes something off.').max(100, 'At most all of it.'),
  times: z
    .int()
    .min(1, 'It can be used once at least.')
    .max(100_000, 'That is more often than it can be used.'),
  until: dayForm.nullable(),
  note: z.string().trim().max(500),
  open: z.boolean(),
});

export type VoucherAnswer = { readonly kind: 'saved' } | { readonly kind: 'wrong'; readonly message: string };

/** Keeps a voucher, a new one or one that there is. */
export async function saveVoucher(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
): Promise<VoucherAnswer> {
  requirePermission(administrator, 'everything');
  const parsed = voucherForm.safeParse(input);
  if (!parsed.success)
    return { kind: 'wrong', message: parsed.error.issues[0]?.message ?? 'That can’t be kept.' };
  const { vocabulary } = trivet.state.live.compiled;
  const gone = parsed.data.products.find((one) => nameOfId(vocabulary, 'product', one) === null);
  if (gone !== undefined) return { kind: 'wrong', message: 'It names a product that is gone. Take it out.' };
  const saved = await writeVoucher(trivet.db, {
    ...parsed.data,
    id: asId(parsed.data.id ?? randomUUID()),
    products: parsed.data.products.map((one) => asId<ProductId>(one)),
  });
  return saved
    ? { kind: 'saved' }
    : { kind: 'wrong', message: 'Another voucher has this code. Choose another.' };
}
