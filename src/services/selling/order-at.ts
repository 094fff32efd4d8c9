/** An order that somebody is on the way to buy or has bought, as they see it when they come back from the till. */
import { type Day, momentIn, type OrderId } from '@/core';
import { type Order, readOrder } from '@/store';
import { messagesOf, type Trivet, type Visitor } from '../running';
import type { Till } from '../till';
import { type Started, startSession } from '../visiting';
import { askAbout } from './ask-till';

export type OrderAnswer =
  /** Paid, and theirs: back to where they were, signed in if paying made their account. */
  | { readonly kind: 'paid'; readonly back: string; readonly started: Started | null }
  /** Paid for an account that they are not signed in to. */
  | { readonly kind: 'sign in'; readonly back: string }
  | { readonly kind: 'waiting'; readonly order: Waiting }
  /** Not paid; what they chose and typed is kept. */
  | { readonly kind: 'declined' | 'expired' | 'given back'; readonly order: Waiting }
  /** No order of theirs. */
  | { readonly kind: 'missing' };

export interface Waiting {
  readonly id: OrderId;
  readonly product: string;
  readonly productName: string;
  readonly price: string;
  /** What was to be paid. */
  readonly sum: string;
  readonly payPage: string | null;
  readonly back: string;
  readonly name: string;
  readonly email: string;
  readonly since: Day;
}

/** How long after setting out the till is asked, and how often, in milliseconds. */
const ASK_AFTER_MS = 3_000;

/** What has become of an order, for whoever made it: the person whose it is, or the session in which a guest made it. */
export async function orderAt(
  trivet: Trivet,
  till: Till | null,
  visitor: Visitor,
  id: string,
  now: Date,
): Promise<OrderAnswer> {
  let order = await readOrder(trivet.db, id);
  if (!order || !isTheirs(order, visitor)) return { kind: 'missing' };
  const asked = (order.askedAt ?? order.made).getTime();
  if (order.open && till !== null && Math.abs(now.getTime() - asked) >= ASK_AFTER_MS) {
    await askAbout(trivet, till, order, now);
    order = (await readOrder(trivet.db, id)) ?? order;
  }
  const told = waiting(trivet, order);
  if (order.due.some(({ kind }) => kind === 'give back') || order.state.endedBy === 'refunded')
    return { kind: 'given back', order: told };
  if (order.state.outcome !== 'paid') return { kind: order.state.outcome, order: told };
  if (order.person === null || visitor.person?.id === order.person)
    return { kind: 'paid', back: order.back, started: null };
  // Who paid has shown nothing but that they can pay; only an account that was made by it is theirs by it.
  // It is theirs until whoever has the mailbox took it.
  const byPaying = order.madeAccount && visitor.person === null && trivet.state.unconfirmed.has(order.person);
  if (!byPaying) return { kind: 'sign in', back: order.back };
  const started = await startSession(trivet, order.person, visitor.facts.passphrases, order.back, now);
  return { kind: 'paid', back: order.back, started };
}

/** Whose an order is: nobody else finds it. */
const isTheirs = ({ person, session }: Order, visitor: Visitor): boolean =>
  (person !== null && visitor.person?.id === person) ||
  (session !== null &&
    visitor.session === session &&
    (visitor.person === null || visitor.person.id === person));

function waiting(trivet: Trivet, order: Order): Waiting {
  const { agreed, made } = order;
  return {
    id: order.id,
    product: order.product,
    productName: order.productName,
    price: order.price,
    sum: messagesOf(trivet.state).money({ amount: agreed.first, currency: agreed.currency }),
    payPage: order.payPage,
    back: order.back,
    name: order.name,
    email: order.email,
    since: momentIn(trivet.state.settings.timeZone, made).today,
  };
}
