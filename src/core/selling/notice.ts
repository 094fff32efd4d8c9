/** What a till tells of an order, each time that something happens to it. */
import type { OrderId } from '../ids';
import type { Day } from '../site/day';
import type { Money } from './money';

export const NOTICE_KINDS = [
  'paid',
  'renewed',
  'failed',
  'refunded',
  'disputed',
  'cancelled',
  'expired',
] as const;
export type NoticeKind = (typeof NOTICE_KINDS)[number];

interface Told {
  /** The till's own, the same each time it is told. */
  readonly id: string;
  readonly order: OrderId;
  /** When it happened by the till's clock, in milliseconds since 1970. */
  readonly at: number;
  /** The day on which it happened, where the seller is. */
  readonly on: Day;
}

/** The period that a payment is for; null for what is paid once and does not end. */
export interface PaidPeriod {
  readonly from: Day;
  readonly until: Day;
  /** The day on which it will be paid again; null where it will not. */
  readonly renews: Day | null;
  /** Whether nothing is paid for it, because somebody tries it first. */
  readonly trial: boolean;
}

export type Notice = Told &
  (
    | ({ readonly kind: 'paid' | 'renewed'; readonly period: PaidPeriod | null } & Money)
    /** A payment that did not come through: the first, or a renewal. */
    | { readonly kind: 'failed' }
    /** Money given back; whether what was bought ends with it. */
    | ({ readonly kind: 'refunded'; readonly ends: boolean } & Money)
    /** The card's owner says that it was not them, and what came of it. */
    | { readonly kind: 'disputed'; readonly outcome: 'open' | 'won' | 'lost' }
    /** It will not renew, or ends: the last day on which it is good. */
    | { readonly kind: 'cancelled'; readonly until: Day }
    /** Nobody paid in time; it can't be paid any more. */
    | { readonly kind: 'expired' }
  );
