/** What has become of an order: worked out of the notices about it, whenever and however often they came. */
import { addDays, type Day } from '../site/day';
import type { Notice } from './notice';
import type { Price } from './terms';

/** What was agreed when an order was made, as notices about it are held against. */
export interface Agreed extends Pick<Price, 'currency' | 'amount' | 'months'> {
  /** What is to be paid first: the price, less a voucher or the rest of another plan; nothing for a trial. */
  readonly first: number;
  /** The last day, where it was agreed that what is paid once ends. */
  readonly until?: Day;
}

/** Money that came in. */
export interface Payment {
  /** Of the notice that told it. */
  readonly notice: string;
  readonly on: Day;
  readonly amount: number;
  /** For what: until which day, or for good. */
  readonly from: Day | null;
  readonly until: Day | null;
  /** Whether it had been paid already, so that this is owed back. */
  readonly twice: boolean;
}

export type EndedBy = 'cancelled' | 'refunded' | 'disputed';

export interface OrderState {
  /** *Waiting* until it is paid or can't be any more. */
  readonly outcome: 'waiting' | 'paid' | 'declined' | 'expired';
  /** The day from which it is good. */
  readonly began: Day | null;
  readonly payments: readonly Payment[];
  /** The last day that is paid for; null where it does not end, or has not begun. */
  readonly paidUntil: Day | null;
  readonly trialUntil: Day | null;
  readonly renews: Day | null;
  /** What was given back in all. */
  readonly refunded: number;
  /** Its last day, where something ended it or will. */
  readonly ends: Day | null;
  readonly endedBy: EndedBy | null;
  /** Since when a renewal does not come through. */
  readonly failing: Day | null;
}

export const nothingYet: OrderState = {
  outcome: 'waiting',
  began: null,
  payments: [],
  paidUntil: null,
  trialUntil: null,
  renews: null,
  refunded: 0,
  ends: null,
  endedBy: null,
  failing: null,
};

/** Why a notice does not fit what was agreed; null where it does. One that does not is kept and changes nothing. */
export function misfitOf(notice: Notice, { first, amount, currency, months, until }: Agreed): string | null {
  if (!('currency' in notice)) return null;
  if (notice.currency !== currency) return `It is in ${notice.currency}; agreed was ${currency}.`;
  if (notice.kind === 'refunded') return null;
  const wanted = notice.kind === 'paid' ? first : amount;
  if (notice.amount !== wanted) return `It is about ${notice.amount}; agreed was ${wanted}.`;
  if (notice.kind === 'renewed' && months === null) return 'It renews what is bought once.';
  const { period } = notice;
  if (months === null && until === undefined)
    return period === null ? null : 'It is for a period; agreed was for good.';
  if (period === null) return 'It says no period.';
  if (months === null && (period.until !== until || period.renews !== null))
    return `It is until ${period.until}; agreed was ${until}.`;
  return null;
}

/** What the notices about an order come to: the same in whatever order and however often they are told. */
export function orderStateOf(agreed: Agreed, notices: Iterable<Notice>): OrderState {
  const once = new Map([...notices].map((notice) => [notice.id, notice]));
  return [...once.values()]
    .filter((notice) => misfitOf(notice, agreed) === null)
    .toSorted((one, other) => one.at - other.at || (one.id < other.id ? -1 : 1))
    .reduce(withNotice, nothingYet);
}

function withNotice(state: OrderState, notice: Notice): OrderState {
  switch (notice.kind) {
    case 'paid':
    case 'renewed':
      return withPayment(state, notice);
    case 'failed':
      if (state.began === null) return { ...state, outcome: 'declined' };
      return { ...state, failing: state.failing ?? notice.on };
    case 'expired':
      return state.began === null ? { ...state, outcome: 'expired' } : state;
    case 'refunded': {
      const refunded = state.refunded + notice.amount;
      return notice.ends
        ? { ...state, refunded, ...endedOn(addDays(notice.on, -1), 'refunded') }
        : { ...state, refunded };
    }
    case 'disputed':
      if (notice.outcome !== 'won') return { ...state, ...endedOn(addDays(notice.on, -1), 'disputed') };
      return state.endedBy === 'disputed' ? { ...state, ends: null, endedBy: null } : state;
    case 'cancelled':
      if (state.ends !== null && state.ends <= notice.until) return { ...state, renews: null };
      return { ...state, ...endedOn(notice.until, 'cancelled') };
    default:
      return notice satisfies never;
  }
}

const endedOn = (ends: Day, endedBy: EndedBy) => ({ ends, endedBy, renews: null });

function withPayment(state: OrderState, notice: Extract<Notice, { kind: 'paid' | 'renewed' }>): OrderState {
  const { period, amount, on } = notice;
  const again = notice.kind === 'paid' && state.began !== null;
  const payment: Payment = {
    notice: notice.id,
    on,
    amount,
    from: period?.from ?? null,
    until: period?.until ?? null,
    twice: again,
  };
  const payments = amount === 0 ? state.payments : [...state.payments, payment];
  if (again) return { ...state, payments };
  const until = period?.until ?? null;
  const longer = until !== null && state.paidUntil !== null && until > state.paidUntil;
  // Who pays on after stopping is in again: the till would not have taken it otherwise.
  const on_again = notice.kind === 'renewed' && state.endedBy === 'cancelled' && longer;
  const ends = on_again ? null : state.ends;
  return {
    ...state,
    outcome: 'paid',
    began: state.began ?? period?.from ?? on,
    payments,
    paidUntil: state.began === null || longer ? until : state.paidUntil,
    trialUntil: period?.trial ? period.until : state.trialUntil,
    renews: ends === null ? (period?.renews ?? null) : null,
    ends,
    endedBy: on_again ? null : state.endedBy,
    failing: null,
  };
}
