/** Changing a subscription for another plan: which there are, what is owed or kept, and setting out for it. */
import {
  asId,
  type Day,
  type Messages,
  nothingYet,
  type OrderId,
  type PlanChange,
  type Price,
  planChange,
} from '@/core';
import { insertOrder, type Order, readOrder } from '@/store';
import { messagesOf, newToken, plainRequest, type Trivet, type Visitor } from '../running';
import type { Till } from '../till';
import { hasPrice, offerOf, type Sold, soldAs, type ViewContext } from '../view';
import { OWN_PURCHASES } from './letters';
import { tellTill } from './set-out';

/** A plan that a subscription can be changed for. */
export interface OtherPlan {
  readonly product: string;
  readonly price: string;
  readonly name: string;
  readonly words: string;
  /** What that comes to: "You pay 4.80 € now: …". */
  readonly sum: string;
}

interface Candidate extends OtherPlan {
  readonly sold: Sold;
  readonly terms: Price;
  readonly change: PlanChange;
}

/** The plans that a running subscription can be changed for, with what is owed or kept. */
export const plansFor = (context: ViewContext, order: Order, today: Day): readonly OtherPlan[] =>
  candidates(context, order, today).map(({ product, price, name, words, sum }) => ({
    product,
    price,
    name,
    words,
    sum,
  }));

function candidates(context: ViewContext, order: Order, today: Day): readonly Candidate[] {
  const { state: became, agreed } = order;
  const messages = messagesOf(context.state);
  const paid = became.payments.findLast(({ until }) => until === became.paidUntil);
  if (became.paidUntil === null || agreed.months === null || became.ends !== null) return [];
  const old = {
    amount: agreed.amount,
    currency: agreed.currency,
    months: agreed.months,
    paid: paid?.amount ?? 0,
    from: paid?.from ?? became.began ?? today,
    until: became.paidUntil,
  };
  return context.state.names.products.flatMap((product) => {
    const sold = soldAs(context, product.id);
    if (!sold || product.kind !== 'subscription' || offerOf(context, sold) === null) return [];
    return sold.stored.terms.prices.flatMap((terms): readonly Candidate[] => {
      const { months } = terms;
      const same = terms.id === order.price && product.id === order.product;
      if (same || months === null || terms.currency !== agreed.currency || !hasPrice(context, terms))
        return [];
      const change = planChange(old, { ...terms, months }, today);
      return [
        {
          product: product.id,
          price: terms.id,
          name: product.name,
          words: messages.price(terms),
          sum: sumInWords(change, terms, old.until, messages),
          sold,
          terms,
          change,
        },
      ];
    });
  });
}

function sumInWords(
  { kind, credit, owed, freeDays }: PlanChange,
  price: Price,
  until: Day,
  { purchases: words, ...written }: Messages,
): string {
  const money = (amount: number) => written.money({ amount, currency: price.currency });
  if (kind === 'at the end') return words.planAtEnd(written.day(until), written.price(price));
  if (owed > 0)
    return credit === 0
      ? words.planOwed(money(owed))
      : words.planOwedLess(money(owed), money(price.amount), money(credit));
  return words.planFree(money(credit), freeDays);
}

export type PlanAnswer =
  | { readonly kind: 'on the way'; readonly to: string }
  | { readonly kind: 'wrong'; readonly problem: string }
  | { readonly kind: 'missing' };

/** Sets out to change a subscription of one's own for another plan. */
export async function changePlan(
  trivet: Trivet,
  till: Till | null,
  { visitor, context }: { readonly visitor: Visitor; readonly context: ViewContext },
  id: string,
  fields: Readonly<Record<string, unknown>>,
  now: Date,
): Promise<PlanAnswer> {
  const { person } = visitor;
  const old = person && (await readOrder(trivet.db, id));
  if (!old || old.person !== person.id) return { kind: 'missing' };
  const { today } = plainRequest(trivet.state, now);
  const chosen = candidates(context, old, today).find(
    ({ product, price }) => product === fields.product && price === fields.price,
  );
  const { purchases: words } = messagesOf(trivet.state);
  if (!chosen) return { kind: 'wrong', problem: words.planGone };
  if (fields.sum !== chosen.sum) return { kind: 'wrong', problem: words.planChanged(chosen.sum) };
  const { terms, change, sold } = chosen;
  const order: Order = {
    ...old,
    id: asId<OrderId>(newToken()),
    product: sold.product.id,
    productName: sold.product.name,
    email: person.email,
    name: person.name,
    price: terms.id,
    agreed: {
      currency: terms.currency,
      amount: terms.amount,
      months: terms.months,
      first: change.owed,
      freeDays: change.freeDays,
      trial: false,
    },
    voucher: null,
    replaces: { order: old.id, when: change.kind },
    back: OWN_PURCHASES,
    madeAccount: false,
    notedBy: null,
    reference: null,
    payPage: null,
    made: now,
    payUntil: new Date(now.getTime() + PAYABLE_MS),
    askedAt: null,
    state: nothingYet,
    open: true,
    due: [],
  };
  if (!(await insertOrder(trivet.db, order))) return { kind: 'wrong', problem: words.planUnderWay };
  const to = await tellTill(trivet, till, order, now);
  return to === null ? { kind: 'wrong', problem: words.noAnswer } : { kind: 'on the way', to };
}

/** How long a change of plan can be paid: what it comes to is worked out for a day. */
const PAYABLE_MS = 60 * 60_000;
