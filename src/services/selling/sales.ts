/** Sales from the desk's side: orders with every notice behind them, what each step would close, refunds, and what came in. */
import { stringify } from 'csv-stringify/sync';
import { z } from 'zod';
import {
  type Day,
  dayInWords,
  lastDayOf,
  type Money,
  moneyInWords,
  type NoticeKind,
  nameOfId,
  neutralised,
  type OrderId,
  type PersonId,
  type ProductId,
  plainAmount,
  priceInWords,
  SHEET,
} from '@/core';
import {
  type KeptNotice,
  type Order,
  readNotices,
  readOrder,
  readOrders,
  readOrdersOf,
  readPaidOrders,
  readProblemNotices,
  readSeats,
} from '@/store';
import { id } from '../forms';
import { type Administrator, momentAt, requirePermission, type SiteState, type Trivet } from '../running';
import type { Till } from '../till';
import { type IfEnded, ifEnded } from './purchase-effect';
import { leftOf, paidBy } from './sale-steps';

export type OrderStanding =
  | 'waiting'
  | 'declined'
  | 'expired'
  | 'good'
  | 'trial'
  | 'late'
  | 'ended'
  | 'refunded'
  | 'disputed';

/** An order in the list. */
export interface Sale {
  readonly id: OrderId;
  readonly on: Day;
  readonly product: ProductId;
  readonly productName: string;
  readonly person: PersonId | null;
  readonly name: string;
  readonly email: string;
  readonly price: string;
  readonly standing: OrderStanding;
  /** The last day on which it is good; null where it does not end, or never began. */
  readonly until: Day | null;
  readonly paid: string;
}

export interface SalesPage {
  readonly list: readonly Sale[];
  readonly count: number;
  /** What the till told and could not be counted, the latest first. */
  readonly problems: readonly {
    readonly id: string;
    readonly on: Day;
    readonly order: string;
    readonly problem: string;
  }[];
  readonly charts: SalesCharts;
}

/** What came in and what runs, month by month. */
export interface SalesCharts {
  /** "2026-11", in order; the same for everything below. */
  readonly months: readonly string[];
  /** What came in less what was given back, by currency. */
  readonly taken: readonly { readonly currency: string; readonly amounts: readonly number[] }[];
  /** How many of each product are good at the end of each month, or today. */
  readonly running: readonly {
    readonly product: ProductId;
    readonly name: string;
    readonly counts: readonly number[];
  }[];
  readonly starts: readonly number[];
  readonly ends: readonly number[];
}

const PAGE = 50;
const MOST_PROBLEMS = 50;

const asking = z.strictObject({
  product: id.nullable().default(null),
  from: z.int().min(0).max(1e9).default(0),
});

/** A page of orders, with what could not be matched and the charts. */
export async function salesPage(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  now: Date,
): Promise<SalesPage> {
  requirePermission(administrator, 'people');
  const parsed = asking.safeParse(input);
  const { product, from } = parsed.success ? parsed.data : { product: null, from: 0 };
  const { state, db } = trivet;
  const { list, count } = await readOrders(db, { product, from, most: PAGE });
  const problems = await readProblemNotices(db, MOST_PROBLEMS);
  return {
    list: list.map((order) => saleOf(state, order, now)),
    count,
    problems: problems.map(({ id: notice, came, order, problem }) => ({
      id: notice,
      on: momentAt(state, came).today,
      order,
      problem,
    })),
    charts: chartsOf(state, await readPaidOrders(db), now),
  };
}

/** What somebody ordered, the latest first. What it is worth is for whoever may see people. */
export const salesTo = async ({ state, db }: Trivet, person: PersonId, now: Date): Promise<readonly Sale[]> =>
  (await readOrdersOf(db, person)).map((order) => saleOf(state, order, now));

function saleOf(state: SiteState, order: Order, now: Date): Sale {
  const { today } = momentAt(state, now);
  const { state: became, agreed } = order;
  return {
    id: order.id,
    on: momentAt(state, order.made).today,
    product: order.product,
    productName: nameOfId(state.live.compiled.vocabulary, 'product', order.product) ?? order.productName,
    person: order.person,
    name: (order.person && state.people.get(order.person)?.name) ?? order.name,
    email: order.email,
    price: priceInWords(agreed),
    standing: standingOf(order, state.settings.graceDays, today),
    until: became.began === null ? null : lastDayOf(became, state.settings.graceDays),
    paid: moneyInWords({ amount: leftOf(order), currency: agreed.currency }),
  };
}

function standingOf({ state, open }: Order, graceDays: number, today: Day): OrderStanding {
  if (open) return 'waiting';
  if (state.endedBy === 'refunded') return 'refunded';
  if (state.endedBy === 'disputed') return 'disputed';
  if (state.outcome !== 'paid') return state.outcome === 'declined' ? 'declined' : 'expired';
  const last = lastDayOf(state, graceDays);
  if (last !== null && last < today) return 'ended';
  if (state.trialUntil !== null && today <= state.trialUntil) return 'trial';
  return state.paidUntil !== null && state.ends === null && state.paidUntil < today ? 'late' : 'good';
}

const MONTHS = 12;

function chartsOf(state: SiteState, paid: readonly Order[], now: Date): SalesCharts {
  const { today } = momentAt(state, now);
  const months = monthsUntil(today);
  const at = new Map(months.map((month, place) => [month, place]));
  const monthOf = (day: Day) => at.get(day.slice(0, 7));
  const zeros = () => months.map(() => 0);
  const add = (list: number[], place: number | undefined, amount = 1) => {
    if (place !== undefined) list[place] = (list[place] ?? 0) + amount;
  };
  const taken = new Map<string, number[]>();
  const running = new Map<ProductId, number[]>();
  const [starts, ends] = [zeros(), zeros()];
  for (const order of paid) {
    const { state: became, agreed, product } = order;
    const { began } = became;
    if (began === null) continue;
    const amounts = taken.get(agreed.currency) ?? zeros();
    taken.set(agreed.currency, amounts);
    for (const { on, amount } of became.payments) add(amounts, monthOf(on), amount);
    if (became.refunded > 0) add(amounts, monthOf(became.ends ?? began), -became.refunded);
    const last = lastDayOf(became, state.settings.graceDays);
    add(starts, monthOf(began));
    if (last !== null && last < today) add(ends, monthOf(last));
    const counts = running.get(product) ?? zeros();
    running.set(product, counts);
    months.forEach((month, place) => {
      const end = place === months.length - 1 ? today : `${month}-31`;
      if (began <= end && (last === null || last >= end)) add(counts, place);
    });
  }
  const { vocabulary } = state.live.compiled;
  return {
    months,
    taken: [...taken]
      .toSorted(([one], [other]) => (one < other ? -1 : 1))
      .map(([currency, amounts]) => ({ currency, amounts })),
    running: [...running].map(([product, counts]) => ({
      product,
      name:
        nameOfId(vocabulary, 'product', product) ??
        paid.find((one) => one.product === product)?.productName ??
        '',
      counts,
    })),
    starts,
    ends,
  };
}

function monthsUntil(today: Day): readonly string[] {
  const last = Number(today.slice(0, 4)) * 12 + Number(today.slice(5, 7)) - 1;
  return Array.from({ length: MONTHS }, (_, back) => {
    const at = last - (MONTHS - 1 - back);
    return `${String(Math.floor(at / 12)).padStart(4, '0')}-${String((at % 12) + 1).padStart(2, '0')}`;
  });
}

export interface OrderReport {
  readonly sale: Sale;
  readonly notices: readonly ToldNotice[];
  readonly ifEnded: IfEnded | null;
  /** What can still be given back, as it is typed; empty where that is nothing. */
  readonly refundable: string;
  readonly currency: string;
  /** Whether it can be ended with the time that is paid for, and now. */
  readonly canStop: boolean;
  readonly canEnd: boolean;
  /** Who noted it at the desk, where no till took the money. */
  readonly notedBy: string | null;
  /** The stand-in till's own page of it, where the bank can be asked for the money. */
  readonly tillPage: string | null;
  /** What is left to ask of the till. */
  readonly due: readonly string[];
  readonly voucher: boolean;
}

export interface ToldNotice {
  readonly id: string;
  readonly came: Day;
  readonly kind: NoticeKind | null;
  readonly words: string;
  readonly problem: string;
  /** As it came. */
  readonly said: string;
}

/** An order with everything that the till told of it. */
export async function orderReport(
  trivet: Trivet,
  till: Till | null,
  administrator: Administrator,
  orderId: string,
  now: Date,
): Promise<OrderReport | null> {
  requirePermission(administrator, 'people');
  const { state, db } = trivet;
  const order = await readOrder(db, orderId);
  if (!order) return null;
  const sale = saleOf(state, order, now);
  const left = leftOf(order);
  const { reference, notedBy } = order;
  const canStop = order.state.renews !== null && reference !== null;
  return {
    sale,
    notices: (await readNotices(db, order.id)).map((notice) => toldOf(state, notice)),
    ifEnded: ifEnded(state, order, now),
    refundable:
      left > 0 && (reference !== null || notedBy !== null)
        ? plainAmount({ amount: left, currency: order.agreed.currency })
        : '',
    currency: order.agreed.currency,
    canStop,
    canEnd: canStop || (notedBy !== null && sale.standing === 'good'),
    notedBy,
    tillPage: till?.standIn ? order.payPage : null,
    due: order.due.map(({ kind }) => kind),
    voucher: order.voucher !== null,
  };
}

function toldOf(state: SiteState, { id: notice, came, said, problem }: KeptNotice): ToldNotice {
  const read = (said ?? {}) as Readonly<Record<string, unknown>>;
  const money =
    typeof read.amount === 'number' && typeof read.currency === 'string'
      ? moneyInWords(read as unknown as Money)
      : '';
  const period = read.period as { readonly from: Day; readonly until: Day } | null | undefined;
  const parts = [
    money,
    period ? `${dayInWords(period.from)} to ${dayInWords(period.until)}` : '',
    read.kind === 'refunded' ? (read.ends === true ? 'and ended' : 'and goes on') : '',
    read.kind === 'cancelled' ? `good until ${dayInWords(String(read.until))}` : '',
    read.kind === 'disputed' ? String(read.outcome) : '',
  ].filter(Boolean);
  return {
    id: notice,
    came: momentAt(state, came).today,
    kind: typeof read.kind === 'string' ? (read.kind as NoticeKind) : null,
    words: parts.join(', '),
    problem,
    said: JSON.stringify(said, null, 2),
  };
}

/** Who has a seat, in the order of the seats. */
export interface SeatHolder {
  readonly number: number;
  readonly order: OrderId;
  readonly name: string;
  readonly email: string;
  /** Whether it is theirs, or held while they pay. */
  readonly paid: boolean;
}

/** Everybody who has a seat of a product, for whoever stands at the door. */
export async function seatsOf(
  trivet: Trivet,
  administrator: Administrator,
  product: string,
): Promise<readonly SeatHolder[]> {
  requirePermission(administrator, 'people');
  const { people } = trivet.state;
  return (await readSeats(trivet.db, product)).map(({ person, name, ...seat }) => ({
    ...seat,
    name: (person && people.get(person)?.name) ?? name,
  }));
}

/** The same as a table (RFC 4180). */
export async function exportSeats(
  trivet: Trivet,
  administrator: Administrator,
  product: string,
): Promise<string> {
  requirePermission(administrator, 'people');
  const seats = await seatsOf(trivet, administrator, product);
  return stringify(
    [
      ['seat', 'name', 'mail', 'paid'],
      ...seats.map(({ number, name, email, paid }) =>
        [number, name, email, paid ? 'yes' : 'is paying'].map((one) => neutralised(String(one))),
      ),
    ],
    SHEET,
  );
}

/** Every order that was paid, as a table (RFC 4180): what came in, and what became of it. */
export async function exportSales(trivet: Trivet, administrator: Administrator, now: Date): Promise<string> {
  requirePermission(administrator, 'people');
  const { state } = trivet;
  const orders = await readPaidOrders(trivet.db);
  return stringify(
    [
      [
        'order',
        'date',
        'product',
        'name',
        'mail',
        'paid',
        'given back',
        'currency',
        'standing',
        'good until',
      ],
      ...orders.map((order) => {
        const sale = saleOf(state, order, now);
        const { currency } = order.agreed;
        const money = (amount: number) => plainAmount({ amount, currency });
        return [
          order.id,
          sale.on,
          sale.productName,
          sale.name,
          sale.email,
          money(paidBy(order)),
          money(order.state.refunded),
          currency,
          sale.standing,
          sale.until ?? '',
        ].map(neutralised);
      }),
    ],
    SHEET,
  );
}
