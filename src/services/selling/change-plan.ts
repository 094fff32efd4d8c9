/** Changing a subscription for another plan: which there are, what is owed or kept, and setting out for it. */
import {
  asId,
  type Day,
  dayInWords,
  moneyInWords,
  nothingYet,
  type OrderId,
  type PlanChange,
  type Price,
  planChange,
  priceInWords,
} from '@/core';
import { insertOrder, type Order, readOrder } from '@/store';
import type { Trivet, Visitor } from '../running';
import { newToken, plainRequest } from '../running';
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
          words: priceInWords(terms),
          sum: sumInWords(change, terms, old.until),
          sold,
          terms,
          change,
        },
      ];
    });
  });
}

function sumInWords({ kind, credit, owed, freeDays }: PlanChange, price: Price, until: Day): string {
  const money = (amount: number) => moneyInWords({ amount, currency: price.currency });
  if (kind === 'at the end')
    return `Nothing is paid now. You keep what you have until ${dayInWords(until)}; then it is ${priceInWords(price)}.`;
  if (owed > 0)
    return credit === 0
      ? `You pay ${money(owed)} now.`
      : `You pay ${money(owed)} now: ${money(price.amount)}, less ${money(credit)} for the days that are left of your plan.`;
  return `Nothing is paid now: the ${money(credit)} left of your plan pay for ${freeDays} days.`;
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
  if (!chosen) return { kind: 'wrong', problem: 'That plan is not to be had any more. Choose another.' };
  if (fields.sum !== chosen.sum)
    return { kind: 'wrong', problem: `That has changed since you looked: ${chosen.sum}` };
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
  if (!(await insertOrder(trivet.db, order)))
    return { kind: 'wrong', problem: 'You are buying that already. Finish there, or wait a moment.' };
  const to = await tellTill(trivet, till, order, now);
  return to === null
    ? {
        kind: 'wrong',
        problem: 'The till does not answer just now. Nothing was changed; try again in a minute.',
      }
    : { kind: 'on the way', to };
}

/** How long a change of plan can be paid: what it comes to is worked out for a day. */
const PAYABLE_MS = 60 * 60_000;
