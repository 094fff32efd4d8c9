/** What somebody could buy to get at something: what is sold to them, cheapest first, that opens it. */
import { type Condition, conditionCompiler } from '../condition';
import type { ItemId, ProductId } from '../ids';
import { isOnOffer, type Price, type ProductTerms } from '../selling';
import {
  type Following,
  factsOf,
  member,
  type RequestFacts,
  type VisitorFacts,
  type Vocabulary,
} from '../site';
import type { CompiledPolicy } from './compile';
import { decide } from './decide';
import type { Change } from './openers';

/** A product with its terms. */
export interface OnSale {
  readonly product: ProductId;
  readonly terms: ProductTerms;
}

/** Something to buy that opens an item. */
export interface BuyingWay {
  readonly product: ProductId;
  /** The cheapest of those that they can have. */
  readonly price: Price;
}

/** Somebody as they are once they have bought a product: a member, with everything that it gives. */
export function withPurchase(
  visitor: VisitorFacts,
  product: ProductId,
  following: Following,
  request: RequestFacts,
): VisitorFacts {
  const buyer = visitor.signedIn ? visitor : member({ passphrases: visitor.passphrases });
  const bought = { product, on: request.today, until: null, state: 'paid' as const };
  const { granted, enrolments } = factsOf({ groups: [], groupsSince: {}, purchases: [bought] }, following);
  return {
    ...buyer,
    purchases: [...(buyer.purchases ?? []), bought],
    granted: [...buyer.granted, ...granted],
    enrolments: [...(buyer.enrolments ?? []), ...(enrolments ?? [])],
  };
}

/** What of all that is sold opens an item to somebody by itself. What they can't buy is not among it. */
export function buyingWays(
  compiled: CompiledPolicy,
  item: ItemId,
  visitor: VisitorFacts,
  request: RequestFacts,
  { onSale, following }: { readonly onSale: Iterable<OnSale>; readonly following: Following },
): readonly BuyingWay[] {
  const ready = conditionCompiler(compiled.vocabulary);
  const found: BuyingWay[] = [];
  for (const { product, terms } of onSale) {
    if (!terms.sold || (terms.day !== null && terms.day < request.today)) continue;
    if (!compiled.vocabulary.products.some(({ id }) => id === product)) continue;
    if (terms.page !== null && decide(compiled, terms.page, visitor, request).kind !== 'open') continue;
    const [price] = terms.prices
      .filter((one) => isOnOffer(one, request.today) && ready(one.who)(visitor, null, request))
      .toSorted((one, other) => monthly(one) - monthly(other) || one.amount - other.amount);
    if (price === undefined) continue;
    const after = withPurchase(visitor, product, following, request);
    if (decide(compiled, item, after, request).kind === 'open') found.push({ product, price });
  }
  return found.toSorted((one, other) => one.price.amount - other.price.amount);
}

/** Whether changes come to no more than buying what is offered: nobody has to be told both. */
export function isPurchaseOf(changes: readonly Change[], { product }: BuyingWay): boolean {
  const [only, ...more] = changes.filter(({ kind }) => kind !== 'sign in');
  if (only?.kind !== 'make' || !only.holds || more.length > 0) return false;
  const { fact, subject } = only.test;
  return (fact === 'owns' || fact === 'ever owned') && subject === product;
}

/** The products of which each lets a member who has nothing else pass a condition; those that are sold first. */
export function passedByBuying(
  who: Condition,
  vocabulary: Vocabulary,
  request: RequestFacts,
  { onSale, following }: { readonly onSale: Iterable<OnSale>; readonly following: Following },
): readonly ProductId[] {
  const passes = conditionCompiler(vocabulary)(who);
  if (passes(member(), null, request)) return [];
  const sold = new Set([...onSale].flatMap(({ product, terms }) => (terms.sold ? [product] : [])));
  return vocabulary.products
    .map(({ id }) => id)
    .filter((product) => passes(withPurchase(member(), product, following, request), null, request))
    .toSorted((one, other) => Number(sold.has(other)) - Number(sold.has(one)));
}

// What is paid by the month is what one begins with, though a year of it costs less.
const monthly = ({ months }: Price): number => months ?? 0;
