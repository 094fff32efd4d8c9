/** What a product is sold for and what it gives: its terms. */
import type { Condition } from '../condition';
import type { ItemId, PriceId } from '../ids';
import type { Day } from '../site/day';
import { type Grants, noGrants } from '../site/granted';
import { type Money, moneyInWords } from './money';
import { periodInWords } from './period';

/** One price of a product. */
export interface Price extends Money {
  readonly id: PriceId;
  /** For subscriptions: after how many months it is paid again. Null for what is paid once. */
  readonly months: number | null;
  /** For subscriptions: how many days are free at the start. */
  readonly trialDays: number;
  /** The first and the last day on which it can be had; null for no such day. */
  readonly from: Day | null;
  readonly until: Day | null;
  /** Who can have it. */
  readonly who: Condition;
}

export interface ProductTerms {
  /** What it gives, in the words of whoever sells it. */
  readonly about: string;
  /** Whether it can be bought at all. */
  readonly sold: boolean;
  /** The page about it: who is turned away from that can't buy it. Null where it has none. */
  readonly page: ItemId | null;
  readonly grants: Grants;
  readonly prices: readonly Price[];
  /** For tickets: how many there are, and the day that they are for. */
  readonly seats: number | null;
  readonly day: Day | null;
}

/** A product that nobody has said anything about yet. */
export const noTerms: ProductTerms = {
  about: '',
  sold: false,
  page: null,
  grants: noGrants,
  prices: [],
  seats: null,
  day: null,
};

/** "12.00 € a month", "90.00 €". */
export const priceInWords = (price: Money & Pick<Price, 'months'>): string =>
  price.months === null ? moneyInWords(price) : `${moneyInWords(price)} ${periodInWords(price.months)}`;

/** Whether a price can be had on a day. */
export const isOnOffer = ({ from, until }: Pick<Price, 'from' | 'until'>, day: Day): boolean =>
  (from === null || from <= day) && (until === null || day <= until);
