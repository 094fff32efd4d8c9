/**
 * What was bought at Larkfell before today, as the stand-in till would have it: its ledger, and the orders with every notice
 * that it told. Who bought a pass at the till has no record of it written by hand.
 */
import {
  type Agreed,
  addDays,
  addMonths,
  asId,
  type Day,
  nothingYet,
  type OrderId,
  orderStateOf,
  type PersonId,
  type Price,
  type ProductId,
} from '@/core';
import type { SiteFile } from '@/services';
import type { Order, Voucher } from '@/store';
import {
  type Account,
  type Card,
  emptyLedger,
  type Ledger,
  opened,
  paid,
  refunded,
  until,
} from '../till/ledger';
import { shopOn } from './shop';

type Person = NonNullable<SiteFile['people']>[number];

/** A purchase to be told: by whom, of what, and how it went. */
interface Told {
  readonly person: string;
  readonly product: string;
  readonly price: string;
  readonly on: Day;
  readonly card?: Card;
  /** The day on which it was given back. */
  readonly refundedOn?: Day;
}

export interface Sales {
  readonly orders: readonly Order[];
  readonly notices: readonly {
    readonly order: OrderId;
    readonly came: Date;
    readonly said: Account['notices'][number];
  }[];
  readonly ledger: Ledger;
  readonly vouchers: readonly Voucher[];
  /** The seats of tickets that were sold, by order. */
  readonly seats: readonly { readonly product: ProductId; readonly order: OrderId }[];
  /** Whose records of these products are the till's now. */
  readonly replaced: readonly { readonly person: string; readonly product: string }[];
}

/** The story people's purchases, and those of some twenty others who have a pass. */
function toldOn(today: Day, people: readonly Person[]): readonly Told[] {
  const known: readonly Told[] = [
    // Paid by the month for a year, until the card was refused.
    {
      person: 'lio',
      product: 'observer-pass',
      price: 'observer-month',
      on: addDays(addMonths(today, -13), -20),
      card: 'refused next time',
    },
    { person: 'tobin', product: 'observer-pass', price: 'observer-year', on: addDays(today, -60) },
    {
      person: 'basil',
      product: 'comet-night',
      price: 'comet-seat',
      on: addDays(today, -9),
      refundedOn: addDays(today, -8),
    },
    { person: 'odile', product: 'winter-atlas', price: 'atlas', on: addDays(today, -40) },
  ];
  const others = people
    .filter(({ id }) => !known.some((one) => one.person === id) && id.includes('-'))
    .flatMap(({ id, purchases = [] }) =>
      purchases.flatMap(({ product, on }): readonly Told[] => {
        if (product.endsWith('-pass')) {
          const [name] = product.split('-');
          return [
            {
              person: id,
              product,
              price: `${name}-${on.endsWith('1') || on.endsWith('4') ? 'year' : 'month'}`,
              on,
            },
          ];
        }
        const once = ONCE[product];
        return once === undefined ? [] : [{ person: id, product, price: once, on }];
      }),
    );
  return [...known, ...others];
}

/** What is bought once, by its only price. */
const ONCE: Readonly<Record<string, string>> = { 'winter-atlas': 'atlas', 'comet-night': 'comet-seat' };

const noon = (day: Day): number => Date.parse(`${day}T12:00:00Z`);

/** What was bought, on the day on which the demo is loaded. */
export function salesOn(today: Day, people: readonly Person[], origin: string): Sales {
  const shop = shopOn(today);
  const orders: Order[] = [];
  const notices: Sales['notices'][number][] = [];
  const accounts: Account[] = [];
  const seats: Sales['seats'][number][] = [];
  const told = toldOn(today, people);
  for (const [at, { person, product, price: priceId, on, card = 'good', refundedOn }] of told.entries()) {
    const who = people.find(({ id }) => id === person);
    const terms = shop.products?.find((one) => one.product === product);
    const price = terms?.prices?.find(({ id }) => id === priceId) as Price | undefined;
    if (!who || !price) continue;
    const id = asId<OrderId>(`demo-order-${at + 1}`);
    const months = price.months ?? null;
    const agreed: Agreed = { currency: price.currency, amount: price.amount, months, first: price.amount };
    const order = {
      order: id,
      what: product,
      email: who.email,
      currency: price.currency,
      first: price.amount,
      renewal: months === null ? null : { amount: price.amount, months },
      freeDays: 0,
      trial: false,
      returnTo: `${origin}/shop/order/${id}`,
      timeZone: 'UTC',
      payUntil: noon(addDays(on, 1)),
    };
    const bought = paid(opened(emptyLedger, order).account, failing(card) ? 'good' : card, noon(on));
    const lived = failing(card)
      ? until({ ...until(bought, noon(addDays(addMonths(on, 12), 1))), card }, noon(today))
      : until(bought, noon(today));
    const account = refundedOn
      ? refunded(lived, { key: 'demo', amount: price.amount, ends: true }, noon(refundedOn))
      : lived;
    accounts.push(account);
    for (const said of account.notices) notices.push({ order: id, came: new Date(said.at), said });
    const state = orderStateOf(agreed, account.notices);
    if (product === 'comet-night' && !refundedOn) seats.push({ product: asId(product), order: id });
    orders.push({
      id,
      product: asId<ProductId>(product),
      productName: NAMES[product] ?? product,
      person: asId<PersonId>(person),
      email: who.email,
      name: who.name,
      price: price.id,
      agreed: { ...agreed, freeDays: 0, trial: false },
      voucher: null,
      replaces: null,
      back: '/',
      session: null,
      madeAccount: false,
      notedBy: null,
      reference: account.reference,
      payPage: null,
      made: new Date(noon(on)),
      payUntil: new Date(order.payUntil),
      askedAt: null,
      state: state.began === null ? nothingYet : state,
      open: false,
      due: [],
    });
  }
  return {
    orders,
    notices: notices.toSorted((one, other) => one.came.getTime() - other.came.getTime()),
    ledger: { accounts, ahead: 0 },
    seats,
    replaced: told.map(({ person, product }) => ({ person, product })),
    vouchers: [
      {
        id: asId('hollin-voucher'),
        code: 'HOLLIN-STARS-27',
        products: [asId<ProductId>('astro-course'), asId<ProductId>('winter-atlas')],
        percent: 100,
        times: 24,
        until: addMonths(today, 8),
        note: 'For the class at Hollin School',
        open: true,
      },
      {
        id: asId('half-voucher'),
        code: 'HALF-FOR-YOU',
        products: [],
        percent: 50,
        times: 100,
        until: null,
        note: 'Under twenty-one, or out of work',
        open: true,
      },
    ],
  };
}

const failing = (card: Card): boolean => card === 'refused next time';

const NAMES: Readonly<Record<string, string>> = {
  'observer-pass': 'Observer pass',
  'keeper-pass': 'Keeper pass',
  'comet-night': 'Comet night',
  'winter-atlas': 'Winter atlas',
};
