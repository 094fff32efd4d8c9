/** What is sold, as a visitor may have it: products whose page is open to them, at the prices that are theirs. */
import {
  type Condition,
  isHeldOn,
  isOnOffer,
  type Messages,
  nameOfId,
  type Price,
  type PriceId,
  type Product,
  type ProductId,
  type Vocabulary,
} from '@/core';
import type { StoredTerms } from '@/store';
import { isSoldOut, messagesOf } from '../running';
import { addressIn, holds, opens, type View } from './context';
import { readyFor } from './texts';

/** A price that this visitor can have. */
export interface OfferedPrice {
  readonly id: PriceId;
  /** "12.00 € a month". */
  readonly words: string;
  readonly trialDays: number;
  /** What it is, as a form brings it back: whoever saw another one is told so before they pay. */
  readonly value: string;
  /** Where it is bought. */
  readonly address: string;
}

/** A product that this visitor can have. */
export interface Offer {
  readonly product: ProductId;
  readonly name: string;
  readonly about: string;
  /** "Level Observer, and the course Astrophotography"; empty where it gives nothing but itself. */
  readonly gives: string;
  /** Its page. */
  readonly page: string | null;
  readonly prices: readonly OfferedPrice[];
  /** Whether they have it already. */
  readonly has: boolean;
  readonly soldOut: boolean;
}

/** What a product is, with its terms. */
export interface Sold {
  readonly product: Product;
  readonly stored: StoredTerms;
}

/** A product that is sold, whoever asks; null where there is none. */
export function soldAs({ state }: Pick<View, 'state'>, id: string): Sold | null {
  const product = state.names.products.find((one) => one.id === id);
  const stored = product && state.shop.get(product.id);
  return product && stored?.terms.sold ? { product, stored } : null;
}

/** Whether a product is this visitor's to see: its page is open to them. */
const isTheirs = (view: View, { stored: { terms } }: Sold): boolean =>
  terms.page === null || opens(view, terms.page);

/** What this visitor can have of a product; null where that is nothing, or where even that is not theirs to know. */
export function offerOf(view: View, sold: Sold, back: string | null = null): Offer | null {
  const { product, stored } = sold;
  const { terms } = stored;
  if (!isTheirs(view, sold)) return null;
  const past =
    terms.day !== null && view.ask(`before ${terms.day}`, ({ request }) => request.today > (terms.day ?? ''));
  if (past) return null;
  const prices = terms.prices.filter((price) => hasPrice(view, price));
  if (prices.length === 0) return null;
  const { vocabulary } = view.compiled;
  const messages = messagesOf(view.state);
  const page = terms.page === null ? undefined : view.state.outline.items.get(terms.page);
  return {
    product: product.id,
    name: product.name,
    about: terms.about,
    gives: givesInWords(stored, vocabulary, messages),
    page: page?.kind === 'page' ? addressIn(view, page.address) : null,
    prices: prices.map((price) => ({
      id: price.id,
      words: messages.price(price),
      trialDays: price.trialDays,
      value: `${price.id}|${shownPrice(price)}`,
      address: buyAddress(view, product.id, back, prices.length > 1 ? price.id : null),
    })),
    has: holdsNow(view, product.id),
    soldOut: isSoldOut(view.state, stored),
  };
}

/** A price as a form carries it, to tell whether it is still the same. */
export const shownPrice = ({ amount, currency, months, trialDays }: Price): string =>
  [amount, currency, months ?? 'once', trialDays].join(' ');

/** Where a product is bought, and then back to where one was. */
export function buyAddress(
  view: View,
  product: ProductId,
  back: string | null,
  price: PriceId | null,
): string {
  const query = new URLSearchParams({ ...(price && { price }), ...(back && { next: back }) }).toString();
  return `${view.base}/shop/${encodeURIComponent(product)}${query === '' ? '' : `?${query}`}`;
}

/** Whether this visitor has a product as it is. */
export const holdsNow = (view: View, product: ProductId): boolean =>
  view.ask(`has ${product}`, ({ facts, request }) =>
    (facts.purchases ?? []).some(
      (purchase) => purchase.product === product && isHeldOn(purchase, request.today),
    ),
  );

/** Whether a price is this visitor's, today. */
export function hasPrice(
  view: View,
  price: { readonly from: string | null; readonly until: string | null; readonly who: Condition },
): boolean {
  if (price.from !== null || price.until !== null) {
    const today = view.ask(`offered ${price.from} ${price.until}`, ({ request }) =>
      isOnOffer(price, request.today),
    );
    if (!today) return false;
  }
  return (
    (price.who.kind === 'all' && price.who.of.length === 0) || holds(view, readyFor(view.compiled, price.who))
  );
}

/** Every product that this visitor can have, by name. */
export const offersFor = (view: View, back: string | null = null): readonly Offer[] =>
  view.state.names.products.flatMap(({ id }) => {
    const sold = soldAs(view, id);
    return (sold && offerOf(view, sold, back)) ?? [];
  });

/** What a product gives, in words that visitors may read: nothing private is named. */
export function givesInWords(
  { terms: { grants, day } }: StoredTerms,
  vocabulary: Vocabulary,
  { shop: words, all }: Messages,
): string {
  const level = grants.level && nameOfId(vocabulary, 'level', grants.level);
  const groups = vocabulary.groups.filter((group) => grants.groups.includes(group.id) && !group.private);
  const parts = [
    ...(level ? [words.level(level)] : []),
    ...vocabulary.roles.filter(({ id }) => grants.roles.includes(id)).map(({ name }) => words.role(name)),
    ...groups.map(({ name }) => words.group(name)),
    ...grants.enrolments.flatMap(({ course, days }) => {
      const name = nameOfId(vocabulary, 'course', course);
      return name === null ? [] : [words.course(name, days)];
    }),
    ...(day === null ? [] : [words.seat]),
  ];
  return all(parts);
}
