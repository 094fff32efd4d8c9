/** The letters that go to whoever buys: each says what happened, what it means for them, and where they can do something about it. */
import {
  addDays,
  type Day,
  type LetterKind,
  type LetterValues,
  type Messages,
  type OrderState,
  type Payment,
} from '@/core';
import { type Order, putIntoOutbox } from '@/store';
import { writtenLetter } from '../mail';
import type { Trivet } from '../running';
import { environment, messagesOf, type SiteState } from '../running';

export type Letter =
  | { readonly kind: 'receipt'; readonly payment: Payment; readonly madeAccount: boolean }
  /** It is theirs, and nothing was paid: for a trial, or by a voucher. */
  | { readonly kind: 'begun'; readonly madeAccount: boolean }
  | { readonly kind: 'late' }
  | { readonly kind: 'reminder'; readonly left: number }
  | { readonly kind: 'ended' }
  /** What a ticket is for is tomorrow. */
  | { readonly kind: 'tomorrow'; readonly day: Day }
  | { readonly kind: 'stopped' }
  | { readonly kind: 'refunded'; readonly amount: number; readonly ends: boolean }
  | { readonly kind: 'disputed' }
  /** What was paid goes back, and why. */
  | { readonly kind: 'given back'; readonly why: string };

const here = (path: string): string => new URL(path, environment().publicUrl).href;

/** Where somebody sees what they have. */
export const OWN_PURCHASES = '/me/purchases';

/** Puts a letter about an order into the outbox. Belongs in the transaction of what it tells. */
export function sendLetter(
  tx: Trivet['db'],
  state: SiteState,
  order: Order,
  after: OrderState,
  letter: Letter,
  at: Date,
): Promise<void> {
  const { kind, values } = written(state, order, after, letter);
  const common = { product: order.productName, link: here(OWN_PURCHASES) };
  return putIntoOutbox(tx, { to: order.email, ...writtenLetter(state, kind, { ...common, ...values }), at });
}

/** Which letter it is, and what it says of this order beside what it is about. */
function written(
  state: SiteState,
  { agreed, name }: Order,
  after: OrderState,
  letter: Letter,
): { readonly kind: LetterKind; readonly values: LetterValues } {
  const messages = messagesOf(state);
  const { money, mail } = messages;
  const day = (date: Day | null) => (date === null ? '' : messages.day(date));
  const sum = (amount: number) => money({ amount, currency: agreed.currency });
  switch (letter.kind) {
    case 'receipt': {
      const { amount, until, on } = letter.payment;
      const values = { sum: sum(amount), day: day(on), until: day(until) };
      return { kind: 'receipt', values: { ...values, ...onwards(messages, agreed, after, letter) } };
    }
    case 'begun': {
      const until = day(after.trialUntil ?? after.paidUntil);
      return {
        kind: after.trialUntil === null ? 'free' : 'trial',
        values: { until, ...onwards(messages, agreed, after, letter) },
      };
    }
    case 'late': {
      const { paidUntil } = after;
      const until = paidUntil === null ? null : addDays(paidUntil, state.settings.graceDays);
      return { kind: 'late', values: { sum: money(agreed), until: day(until) } };
    }
    case 'reminder': {
      const when = letter.left === 1 ? mail.tomorrow : mail.inDays(letter.left);
      return { kind: 'reminder', values: { sum: money(agreed), when } };
    }
    case 'ended':
    case 'disputed':
      return { kind: letter.kind, values: {} };
    case 'tomorrow':
      return { kind: 'tomorrow', values: { day: day(letter.day), name } };
    case 'stopped':
      return { kind: 'stopped', values: { until: day(after.ends) } };
    case 'refunded':
      return {
        kind: letter.ends ? 'moneyBackEnded' : 'moneyBack',
        values: { sum: sum(letter.amount) },
      };
    case 'given back':
      return { kind: 'notGiven', values: { why: letter.why } };
    default:
      return letter satisfies never;
  }
}

/** What comes after something that somebody has just got. */
const onwards = (
  messages: Messages,
  agreed: Order['agreed'],
  { renews }: OrderState,
  { madeAccount }: { readonly madeAccount: boolean },
): LetterValues => ({
  next: renews === null ? '' : messages.day(renews),
  price: renews === null ? '' : messages.price(agreed),
  password: madeAccount ? here('/reset') : '',
});
