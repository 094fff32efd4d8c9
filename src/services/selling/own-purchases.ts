/** What somebody bought, as they see it: until when it is theirs, what they paid, and what they can do about it. */
import {
  type Agreed,
  type Day,
  lastDayOf,
  type Messages,
  type OrderId,
  type Payment,
  type ProductId,
  siteTitleOf,
} from '@/core';
import { type Order, readOrder, readOrdersOf } from '@/store';
import { messagesOf, type Person, plainRequest, type Trivet, type Visitor } from '../running';
import { type Till, TillTrouble } from '../till';
import { givesInWords, type ViewContext } from '../view';
import { askAbout } from './ask-till';
import { plansFor } from './change-plan';
import { OWN_PURCHASES } from './letters';

/** What came in for an order, with what it was for. */
export interface Receipt {
  readonly address: string;
  readonly on: Day;
  readonly sum: string;
}

export interface OwnPurchase {
  readonly id: OrderId;
  readonly product: ProductId;
  readonly name: string;
  readonly gives: string;
  /** How it stands: "Paid until 3 May 2027, then 12.00 € a month." */
  readonly standing: string;
  readonly state: 'good' | 'late' | 'ended' | 'waiting';
  readonly receipts: readonly Receipt[];
  /** Whether it can be stopped, whether another card can be left, and the plans it can be changed for. */
  readonly canStop: boolean;
  readonly canLeaveCard: boolean;
  readonly plans: ReturnType<typeof plansFor>;
}

export interface OwnPurchases {
  readonly orders: readonly OwnPurchase[];
  /** What was given to them without the till. */
  readonly given: readonly { readonly name: string; readonly standing: string }[];
}

/** Everything that somebody bought, the latest first. */
export async function ownPurchases(
  trivet: Trivet,
  person: Person,
  context: ViewContext,
  now: Date,
): Promise<OwnPurchases> {
  const { state } = trivet;
  const { today } = plainRequest(state, now);
  const orders = await readOrdersOf(trivet.db, person.id);
  const names = new Map(state.names.products.map(({ id, name }) => [id, name]));
  const { purchases: words, day } = messagesOf(state);
  return {
    orders: orders
      .filter(({ state: became, open }) => became.began !== null || open)
      .map((order) => ownPurchase(trivet, order, context, today)),
    given: person.purchases
      .filter(({ state: stands }) => stands === 'paid')
      .map(({ product, until }) => ({
        name: names.get(product) ?? '',
        standing:
          until === null
            ? words.forGood
            : until < today
              ? words.endedOn(day(until))
              : words.yoursUntil(day(until)),
      })),
  };
}

function ownPurchase({ state }: Trivet, order: Order, context: ViewContext, today: Day): OwnPurchase {
  const { id, product, state: became, agreed } = order;
  const messages = messagesOf(state);
  const last = lastDayOf(became, state.settings.graceDays);
  const good = became.began !== null && became.endedBy !== 'disputed' && (last === null || last >= today);
  const late = good && became.paidUntil !== null && became.ends === null && became.paidUntil < today;
  const terms = state.shop.get(product);
  const renews = good && became.renews !== null;
  return {
    id,
    product,
    name: order.productName,
    gives: terms ? givesInWords(terms, state.live.compiled.vocabulary, messages) : '',
    standing: standingOf(order, agreed, { last, good, late }, messages),
    state: order.open ? 'waiting' : late ? 'late' : good ? 'good' : 'ended',
    receipts: became.payments.map((payment) => ({
      address: receiptAddress(id, payment),
      on: payment.on,
      sum: messages.money({ amount: payment.amount, currency: agreed.currency }),
    })),
    canStop: renews,
    canLeaveCard: renews && order.reference !== null,
    plans: renews && !late ? plansFor(context, order, today) : [],
  };
}

const receiptAddress = (order: OrderId, { notice }: Payment): string =>
  `/me/receipt/${encodeURIComponent(order)}/${encodeURIComponent(notice)}`;

function standingOf(
  { state, open }: Order,
  agreed: Agreed,
  { last, good, late }: { readonly last: Day | null; readonly good: boolean; readonly late: boolean },
  { purchases: words, day, price }: Messages,
): string {
  const { began, paidUntil, renews, ends, endedBy, trialUntil } = state;
  if (open) return words.notPaid;
  if (endedBy === 'refunded') return words.refunded;
  if (endedBy === 'disputed') return words.disputed;
  if (!good) return last === null ? words.ended : words.endedOn(day(last));
  if (late && last !== null) return words.late(day(last));
  if (ends !== null) return words.stopped(day(ends));
  if (paidUntil === null) return words.forGoodSince(day(began ?? ''));
  const says = trialUntil === paidUntil ? words.trialUntil : words.paidUntil;
  return says(day(paidUntil), renews === null ? null : price(agreed));
}

/** A receipt, to be printed. */
export interface ReceiptView {
  readonly number: string;
  readonly on: string;
  readonly what: string;
  readonly period: string;
  readonly sum: string;
  readonly name: string;
  readonly email: string;
  readonly refunded: string | null;
  readonly seller: string;
}

/** A receipt of somebody's own; null where there is none. */
export async function ownReceipt(
  trivet: Trivet,
  { person }: Visitor,
  order: string,
  notice: string,
): Promise<ReceiptView | null> {
  const found = person && (await readOrder(trivet.db, order));
  const payment = found?.state.payments.find((one) => one.notice === notice);
  if (!found || !payment || found.person !== person.id) return null;
  const { currency } = found.agreed;
  const { outline } = trivet.state;
  const { purchases: words, day, money: written } = messagesOf(trivet.state);
  const money = (amount: number) => written({ amount, currency });
  return {
    number: `${found.id.slice(0, 8)}-${found.state.payments.indexOf(payment) + 1}`,
    on: day(payment.on),
    what: found.productName,
    period:
      payment.from === null || payment.until === null
        ? ''
        : words.period(day(payment.from), day(payment.until)),
    sum: money(payment.amount),
    name: found.name,
    email: found.email,
    refunded: found.state.refunded === 0 ? null : money(found.state.refunded),
    seller: siteTitleOf(outline),
  };
}

export type OwnStep =
  | { readonly kind: 'on the way'; readonly to: string }
  | { readonly kind: 'wrong'; readonly problem: string }
  | { readonly kind: 'missing' };

/** Stops a subscription of one's own: it stays until what is paid for is over. */
export const stopOwn = (
  trivet: Trivet,
  till: Till | null,
  visitor: Visitor,
  id: string,
  now: Date,
): Promise<OwnStep> =>
  withOwn(trivet, till, visitor, id, now, async (asked, reference, order) => {
    await asked.cancel(reference, 'at the end', now);
    await askAbout(trivet, asked, order, now);
    return OWN_PURCHASES;
  });

/** Where another card is left. */
export const newCard = (
  trivet: Trivet,
  till: Till | null,
  visitor: Visitor,
  id: string,
  home: URL,
  now: Date,
): Promise<OwnStep> =>
  withOwn(trivet, till, visitor, id, now, (asked, reference) =>
    asked.card(reference, new URL(OWN_PURCHASES, home).href, now),
  );

async function withOwn(
  trivet: Trivet,
  till: Till | null,
  { person }: Visitor,
  id: string,
  now: Date,
  step: (till: Till, reference: string, order: Order) => Promise<string>,
): Promise<OwnStep> {
  const order = person && (await readOrder(trivet.db, id));
  if (!order || order.person !== person.id) return { kind: 'missing' };
  const last = lastDayOf(order.state, trivet.state.settings.graceDays);
  const { today } = plainRequest(trivet.state, now);
  const { purchases: words } = messagesOf(trivet.state);
  if (order.state.renews === null || (last !== null && last < today))
    return { kind: 'wrong', problem: words.nothingToChange };
  if (till === null || order.reference === null) return { kind: 'wrong', problem: words.noAnswer };
  try {
    return { kind: 'on the way', to: await step(till, order.reference, order) };
  } catch (error) {
    if (error instanceof TillTrouble) return { kind: 'wrong', problem: words.noAnswer };
    throw error;
  }
}
