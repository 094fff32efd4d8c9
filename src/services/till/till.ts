/**
 * The till: whoever takes the money. Trivet asks one small interface of it, which docs/till.md describes for whoever writes
 * one; what happens to an order comes back as notices.
 */
import { z } from 'zod';
import { isCurrency, MOST_AMOUNT, type Notice, type OrderId } from '@/core';
import { dayForm } from '../forms';
import type { checkSignature } from './signing';

/** An order as the till is told of it. */
export interface TillOrder {
  readonly order: OrderId;
  /** What is bought, as the buyer reads it. */
  readonly what: string;
  readonly email: string;
  readonly currency: string;
  /** What is to be paid first; 0 where that comes later. */
  readonly first: number;
  /** What is to be paid from then on, and every how many months; null for what is paid once. */
  readonly renewal: { readonly amount: number; readonly months: number } | null;
  /** For how many days nothing is to be paid at the start, and whether that is a trial. */
  readonly freeDays: number;
  readonly trial: boolean;
  /** Where the buyer comes back to. */
  readonly returnTo: string;
  /** Where the seller's days begin and end (IANA name). */
  readonly timeZone: string;
  /** Until when it can be paid, in milliseconds since 1970. */
  readonly payUntil: number;
}

export interface TillAnswer {
  /** What the till calls the order. */
  readonly reference: string;
  /** Its page to pay on. */
  readonly payPage: string;
}

/** What a site asks of a till. Everything can be asked twice: the second time does nothing more. */
export interface Till {
  /** Whether it is the one that ships with Trivet, whose clock can be moved on. */
  readonly standIn: boolean;
  /** Whether a message is its own and fresh: its id, or why it is refused. */
  check(header: (name: string) => string | null, body: string, now: Date): ReturnType<typeof checkSignature>;
  /** Asks it who it is. */
  meet(now: Date): Promise<void>;
  /** The address that buyers' browsers are sent to. */
  readonly origin: string;
  open(order: TillOrder, now: Date): Promise<TillAnswer>;
  /** Everything that it told of an order. */
  notices(reference: string, now: Date): Promise<readonly Notice[]>;
  /** Gives money back. `key` tells one refund from another. */
  refund(
    reference: string,
    what: { readonly key: string; readonly amount: number; readonly ends: boolean },
    now: Date,
  ): Promise<void>;
  /** Ends a subscription: now, or with the time that is paid for. What is not paid yet can't be any more. */
  cancel(reference: string, when: 'now' | 'at the end', now: Date): Promise<void>;
  /** The page where a buyer leaves another card. */
  card(reference: string, returnTo: string, now: Date): Promise<string>;
  /** Moves its clock on to a moment, and tells what happens until then. Only the stand-in can. */
  moveOn(to: Date, now: Date): Promise<void>;
}

/** That a till could not be asked, in words for whoever waits. */
export class TillTrouble extends Error {
  constructor(readonly what: 'down' | 'nonsense') {
    super(what === 'down' ? 'The till does not answer.' : 'The till answered something that can’t be read.');
  }
}

const told = {
  id: z.string().min(1).max(200),
  order: z.string().min(1).max(100),
  at: z.int().min(0).max(8.64e15),
  on: dayForm,
};
const money = {
  amount: z.int().min(0).max(MOST_AMOUNT),
  currency: z.string().refine(isCurrency, 'There is no such currency.'),
};
const period = z
  .strictObject({ from: dayForm, until: dayForm, renews: dayForm.nullable(), trial: z.boolean() })
  .refine(({ from, until }) => from <= until, 'It ends before it begins.')
  .nullable();

/** A notice as it comes from a till, read strictly. */
export const noticeForm = z.discriminatedUnion('kind', [
  z.strictObject({ ...told, kind: z.literal('paid'), ...money, period }),
  z.strictObject({ ...told, kind: z.literal('renewed'), ...money, period }),
  z.strictObject({ ...told, kind: z.literal('failed') }),
  z.strictObject({ ...told, kind: z.literal('refunded'), ...money, ends: z.boolean() }),
  z.strictObject({ ...told, kind: z.literal('disputed'), outcome: z.enum(['open', 'won', 'lost']) }),
  z.strictObject({ ...told, kind: z.literal('cancelled'), until: dayForm }),
  z.strictObject({ ...told, kind: z.literal('expired') }),
]) as unknown as z.ZodType<Notice>;
