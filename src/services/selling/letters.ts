/** The letters that go to whoever buys: each says what happened, what it means for them, and where they can do something about it. */
import {
  addDays,
  type Day,
  dayInWords,
  moneyInWords,
  type OrderState,
  type Payment,
  priceInWords,
} from '@/core';
import { type Order, putIntoOutbox } from '@/store';
import type { Trivet } from '../running';
import { environment, type SiteState } from '../running';

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
  const { subject, lines } = written(state, order, after, letter);
  return putIntoOutbox(tx, { to: order.email, subject, text: lines.filter(Boolean).join('\n\n'), at });
}

function written(
  { settings: { graceDays } }: SiteState,
  order: Order,
  { paidUntil, trialUntil, renews, ends }: OrderState,
  letter: Letter,
): { readonly subject: string; readonly lines: readonly string[] } {
  const { productName: what, agreed } = order;
  const price = priceInWords(agreed);
  const own = `What you have, and everything that you paid: ${here(OWN_PURCHASES)}`;
  const account = (made: boolean) =>
    made
      ? `You have an account now, with this mail address. Choose a password for it: ${here('/reset')}`
      : '';
  const renewal = renews === null ? '' : `It is paid again on ${dayInWords(renews)}: ${price}.`;
  const good = (last: Day | null) => (last === null ? '' : `It is good until ${dayInWords(last)}.`);
  switch (letter.kind) {
    case 'receipt': {
      const { amount, until, on } = letter.payment;
      const paid = moneyInWords({ amount, currency: agreed.currency });
      return {
        subject: `Receipt: ${what}, ${paid}`,
        lines: [
          `On ${dayInWords(on)} you paid ${paid} for ${what}.`,
          good(until),
          renewal,
          account(letter.madeAccount),
          own,
        ],
      };
    }
    case 'begun':
      return {
        subject: trialUntil === null ? `${what} is yours` : `${what} is yours to try`,
        lines: [
          trialUntil === null
            ? `${what} is yours, and you paid nothing for it.`
            : `You can try ${what} until ${dayInWords(trialUntil)}, and pay nothing for it.`,
          trialUntil === null ? good(paidUntil) : '',
          renewal,
          account(letter.madeAccount),
          own,
        ],
      };
    case 'late':
      return {
        subject: `A payment for ${what} did not come through`,
        lines: [
          `We could not take ${moneyInWords(agreed)} for ${what}.`,
          paidUntil === null
            ? ''
            : `It stays yours until ${dayInWords(addDays(paidUntil, graceDays))}. It is tried again; if your card has changed, leave another one.`,
          own,
        ],
      };
    case 'reminder':
      return {
        subject: `${what} ends ${letter.left === 1 ? 'tomorrow' : `in ${letter.left} days`}`,
        lines: [
          `${moneyInWords(agreed)} for ${what} still did not come through. Leave another card and it goes on as before.`,
          own,
        ],
      };
    case 'ended':
      return {
        subject: `${what} has ended`,
        lines: [`${what} has ended, and with it what it gave you.`, own],
      };
    case 'tomorrow':
      return {
        subject: `${what} is tomorrow`,
        lines: [`${what} is tomorrow, ${dayInWords(letter.day)}. You have a place, ${order.name}.`, own],
      };
    case 'stopped':
      return {
        subject: `${what} is stopped`,
        lines: [
          `${what} will not be paid again.`,
          ends === null ? '' : `It stays yours until ${dayInWords(ends)}.`,
          own,
        ],
      };
    case 'refunded': {
      const money = moneyInWords({ amount: letter.amount, currency: agreed.currency });
      return {
        subject: `${money} come back to you`,
        lines: [
          `We gave back ${money} of what you paid for ${what}.`,
          letter.ends ? `${what} has ended with it.` : `${what} stays yours.`,
          own,
        ],
      };
    }
    case 'disputed':
      return {
        subject: `${what} is closed for now`,
        lines: [`Your bank disputes a payment for ${what}. Until that is settled it is closed.`, own],
      };
    case 'given back':
      return {
        subject: `What you paid for ${what} comes back to you`,
        lines: [letter.why, 'You get back everything that you paid for it. Nothing is left to do.', own],
      };
    default:
      return letter satisfies never;
  }
}
