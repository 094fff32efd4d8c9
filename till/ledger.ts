/**
 * What the stand-in till knows: orders, cards, what was paid, and what it told of it. It moves no money; it does what a till
 * would, by a clock that can be moved on.
 */
import { randomBytes } from 'node:crypto';
import { addDays, addMonths, type Day, endOfPeriods, momentIn, type Notice } from '../src/core';
import type { TillOrder } from '../src/services';

export type Card = 'good' | 'refused next time';

interface Subscription {
  /** The day from which periods are counted. */
  readonly anchor: Day;
  /** How many periods were paid. */
  readonly periods: number;
  readonly paidUntil: Day;
  /** When it is paid again; null once it is cancelled. */
  readonly next: Day | null;
  /** How often in a row it did not come through. */
  readonly failed: number;
}

export interface Account {
  readonly order: TillOrder;
  readonly reference: string;
  readonly state: 'open' | 'paid' | 'declined' | 'withdrawn' | 'expired';
  readonly card: Card;
  readonly subscription: Subscription | null;
  /** Keys of refunds that were made: one asked for again is not made again. */
  readonly refunds: readonly string[];
  readonly notices: readonly Notice[];
}

export interface Ledger {
  readonly accounts: readonly Account[];
  /** How far its clock is ahead, in milliseconds. */
  readonly ahead: number;
}

export const emptyLedger: Ledger = { accounts: [], ahead: 0 };

type DistributiveOmit<T, K extends PropertyKey> = T extends unknown ? Omit<T, K> : never;
type Told = DistributiveOmit<Notice, 'id' | 'order' | 'at' | 'on'>;

const newId = (): string => randomBytes(16).toString('base64url');

export const dayAt = ({ order }: Account, at: number): Day => momentIn(order.timeZone, new Date(at)).today;

/** An account about which something more is told. */
const tell = (account: Account, told: Told, at: number, on = dayAt(account, at)): Account => ({
  ...account,
  notices: [...account.notices, { id: newId(), order: account.order.order, at, on, ...told } as Notice],
});

export const accountAt = ({ accounts }: Ledger, reference: string): Account | undefined =>
  accounts.find((one) => one.reference === reference);

const withAccount = (ledger: Ledger, account: Account): Ledger => ({
  ...ledger,
  accounts: ledger.accounts.map((one) => (one.reference === account.reference ? account : one)),
});

/** Changes one account, if there is one. */
export function change(ledger: Ledger, reference: string, how: (account: Account) => Account): Ledger {
  const account = accountAt(ledger, reference);
  return account ? withAccount(ledger, how(account)) : ledger;
}

/** Takes an order; one that is there already stays as it is. */
export function opened(
  ledger: Ledger,
  order: TillOrder,
): { readonly ledger: Ledger; readonly account: Account } {
  const there = ledger.accounts.find((one) => one.order.order === order.order);
  if (there) return { ledger, account: there };
  const account: Account = {
    order,
    reference: newId(),
    state: 'open',
    card: 'good',
    subscription: null,
    refunds: [],
    notices: [],
  };
  return { ledger: { ...ledger, accounts: [...ledger.accounts, account] }, account };
}

/** What the buyer does on the pay page. What is not open any more stays as it is. */
export function paid(account: Account, card: Card, at: number): Account {
  if (account.state !== 'open') return account;
  const { first, renewal, freeDays, trial, currency } = account.order;
  const on = dayAt(account, at);
  if (renewal === null)
    return tell(
      { ...account, state: 'paid', card },
      { kind: 'paid', amount: first, currency, period: null },
      at,
    );
  const anchor = freeDays > 0 ? addDays(on, freeDays) : on;
  const until = freeDays > 0 ? addDays(anchor, -1) : endOfPeriods(anchor, renewal.months, 1);
  const next = addDays(until, 1);
  const subscription: Subscription = {
    anchor,
    periods: freeDays > 0 ? 0 : 1,
    paidUntil: until,
    next,
    failed: 0,
  };
  const period = { from: on, until, renews: next, trial };
  return tell(
    { ...account, state: 'paid', card, subscription },
    { kind: 'paid', amount: first, currency, period },
    at,
  );
}

export const declined = (account: Account, at: number): Account =>
  account.state === 'open' ? tell({ ...account, state: 'declined' }, { kind: 'failed' }, at) : account;

/** What came in and did not go back. */
const leftIn = ({ notices }: Account): number =>
  notices.reduce(
    (sum, one) => ('amount' in one ? sum + (one.kind === 'refunded' ? -one.amount : one.amount) : sum),
    0,
  );

/** Gives money back, once for each key, and never more than came in. */
export function refunded(
  account: Account,
  { key, amount, ends }: { readonly key: string; readonly amount: number; readonly ends: boolean },
  at: number,
): Account {
  if (account.refunds.includes(key) || account.state !== 'paid' || amount > leftIn(account)) return account;
  const { currency } = account.order;
  const next = { ...account, refunds: [...account.refunds, key] };
  const ended =
    ends && next.subscription ? { ...next, subscription: { ...next.subscription, next: null } } : next;
  return tell(ended, { kind: 'refunded', amount, currency, ends }, at);
}

/** Ends a subscription, or takes back what is not paid yet. */
export function cancelled(account: Account, when: 'now' | 'at the end', at: number): Account {
  if (account.state === 'open') return tell({ ...account, state: 'withdrawn' }, { kind: 'expired' }, at);
  const { subscription } = account;
  if (subscription === null || (subscription.next === null && when === 'at the end')) return account;
  const yesterday = addDays(dayAt(account, at), -1);
  const until = when === 'now' && yesterday < subscription.paidUntil ? yesterday : subscription.paidUntil;
  const before = account.notices.findLast((one) => one.kind === 'cancelled');
  if (before?.kind === 'cancelled' && before.until <= until) return account;
  return tell(
    { ...account, subscription: { ...subscription, next: null } },
    { kind: 'cancelled', until },
    at,
  );
}

export type Outcome = Extract<Notice, { kind: 'disputed' }>['outcome'];

/** What the bank says of a payment; null where nobody asked it. */
export const bankOn = ({ notices }: Account): Outcome | null =>
  notices.findLast((one) => one.kind === 'disputed')?.outcome ?? null;

/** The card's owner says it was not them, once; or the bank has decided about that. */
export function disputed(account: Account, outcome: Outcome, at: number): Account {
  const before = bankOn(account);
  const fits = outcome === 'open' ? before === null : before === 'open';
  return account.state === 'paid' && fits ? tell(account, { kind: 'disputed', outcome }, at) : account;
}

/** After how many days a renewal that failed is tried again, and after how many tries it is given up. */
const TRY_AGAIN_DAYS = 2;
const MOST_TRIES = 8;

/** Another card: what is owed is taken from it at once. */
export function withCard(account: Account, card: Card, at: number): Account {
  const next = { ...account, card };
  return account.subscription !== null && account.subscription.failed > 0 ? renewed(next, at) : next;
}

/** Everything that happens to an account until a moment, in order. */
export function until(account: Account, to: number): Account {
  const { order, state } = account;
  if (state === 'open' && order.payUntil <= to)
    return tell({ ...account, state: 'expired' }, { kind: 'expired' }, order.payUntil);
  let now = account;
  for (let most = 0; most < 500; most++) {
    const next = now.subscription?.next;
    if (!next) return now;
    const due = addDays(next, (now.subscription?.failed ?? 0) * TRY_AGAIN_DAYS);
    if (due > dayAt(now, to)) return now;
    // By noon of its day, wherever the seller is.
    now = renewed(now, Math.min(to, Date.parse(`${due}T12:00:00Z`)), due);
  }
  return now;
}

function renewed(account: Account, at: number, on = dayAt(account, at)): Account {
  const { subscription, order } = account;
  if (subscription?.next == null || order.renewal === null) return account;
  const { amount, months } = order.renewal;
  if (account.card === 'refused next time') {
    const failed = subscription.failed + 1;
    const told = tell({ ...account, subscription: { ...subscription, failed } }, { kind: 'failed' }, at, on);
    return failed < MOST_TRIES
      ? told
      : tell(
          { ...told, subscription: { ...subscription, failed, next: null } },
          { kind: 'cancelled', until: subscription.paidUntil },
          at + 1,
          on,
        );
  }
  const periods = subscription.periods + 1;
  const from = addMonths(subscription.anchor, months * subscription.periods);
  const last = endOfPeriods(subscription.anchor, months, periods);
  const next = addDays(last, 1);
  return tell(
    { ...account, subscription: { ...subscription, periods, paidUntil: last, next, failed: 0 } },
    {
      kind: 'renewed',
      amount,
      currency: order.currency,
      period: { from, until: last, renews: next, trial: false },
    },
    at,
    on,
  );
}

/** The whole ledger as it is at a moment. */
export const ledgerAt = (ledger: Ledger, to: number): Ledger => ({
  ...ledger,
  accounts: ledger.accounts.map((account) => until(account, to)),
});
