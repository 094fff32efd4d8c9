/** What is sold, with a mark in what is said of it; and orders of those whom doors are tried as, marked as theirs alone. */
import {
  asId,
  type Condition,
  decide,
  isOnOffer,
  nothingYet,
  type OrderId,
  type PersonId,
  type ProductId,
  TRUE,
  trace,
  type VoucherId,
} from '@/core';
import { insertOrder, type Order, replaceTerms, type StoredTerms } from '@/store';
import type { SiteState, Trivet } from '../running';
import type { Eyes } from './allowed';

/** What is sold, marked; `plant` makes a mark of a product. */
export const plantTerms = (
  { shop }: SiteState,
  plant: (product: ProductId) => string,
): readonly StoredTerms[] =>
  [...shop.values()].map(({ terms, ...stored }) => ({
    ...stored,
    terms: { ...terms, about: `${terms.about} ${plant(stored.product)}` },
  }));

/** Whether somebody may read of a product: it is sold, its page is open to them, and a price of it is theirs. */
export function mayRead(
  { compiled, facts, request }: Eyes,
  product: ProductId,
  terms: readonly StoredTerms[],
): boolean {
  const found = terms.find((one) => one.product === product)?.terms;
  if (!found?.sold || (found.day !== null && found.day < request.today)) return false;
  if (found.page !== null && decide(compiled, found.page, facts, request).kind !== 'open') return false;
  const holds = (who: Condition) =>
    trace(who, { visitor: facts, item: null, request }, compiled.vocabulary).truth === TRUE;
  return found.prices.some((price) => isOnOffer(price, request.today) && holds(price.who));
}

const noticeOf = (person: PersonId): string => `notice-${person}`;
const orderOf = (person: PersonId): OrderId => asId<OrderId>(`order-${person}`);

/** An order of each of some people, of a product that there is none of, so that it changes nothing that they reach. */
export const plantOrders = (
  people: readonly PersonId[],
  now: Date,
  own: (person: PersonId) => string,
): readonly Order[] =>
  people.map((person) => ({
    id: orderOf(person),
    product: asId<ProductId>('planted'),
    productName: own(person),
    person,
    email: `${own(person)}@place.example`,
    name: own(person),
    price: asId('planted'),
    agreed: { currency: 'EUR', amount: 100, months: null, first: 100, freeDays: 0, trial: false },
    voucher: null,
    replaces: null,
    back: `/${own(person)}`,
    session: null,
    madeAccount: false,
    notedBy: null,
    reference: null,
    payPage: null,
    made: now,
    payUntil: now,
    askedAt: null,
    state: {
      ...nothingYet,
      outcome: 'paid',
      began: '2020-01-01',
      payments: [
        { notice: noticeOf(person), on: '2020-01-01', amount: 100, from: null, until: null, twice: false },
      ],
    },
    open: false,
    due: [],
  }));

/** Where orders are looked at, by whoever made them. */
export const pathsOfOrders = (orders: readonly Order[]): readonly string[] =>
  orders.flatMap(({ id, person }) =>
    person === null ? [] : [`/shop/order/${id}`, `/me/receipt/${id}/${noticeOf(person)}`],
  );

/** Writes what is sold and what was bought, and with it what the source's people bought at the till. */
export async function writeSold(
  { db }: Trivet,
  source: SiteState,
  { terms, orders }: { readonly terms: readonly StoredTerms[]; readonly orders: readonly Order[] },
): Promise<void> {
  await db.transaction(async (tx) => {
    await replaceTerms(tx, terms);
    for (const order of [...orders, ...boughtIn(source)]) await insertOrder(tx, order);
  });
}

/** What people bought, as orders that come to the same purchases. */
function boughtIn({ bought }: SiteState): readonly Order[] {
  const [blank] = plantOrders([asId<PersonId>('nobody')], new Date(0), () => '');
  if (!blank) return [];
  return [...bought].flatMap(([person, purchases]) =>
    purchases.flatMap(({ product, on, until, state, order }): readonly Order[] =>
      order === undefined
        ? []
        : [
            {
              ...blank,
              id: order.id,
              product,
              person,
              email: order.id,
              voucher: order.voucher ? asId<VoucherId>('voucher') : null,
              state: {
                ...nothingYet,
                outcome: 'paid',
                began: on,
                paidUntil: order.paidUntil ?? until,
                trialUntil: order.trialUntil,
                renews: order.renews,
                ends: order.renews === null ? until : null,
                endedBy: state === 'refunded' ? 'refunded' : state === 'failed' ? 'disputed' : null,
              },
            },
          ],
    ),
  );
}
