/** Sales from the desk's side: orders with every notice behind them, what each step would close, refunds, and what came in. */
import { stringify } from 'csv-stringify/sync';
import { z } from 'zod';
import {
  addDays,
  asId,
  type Day,
  dayInWords,
  factsOf,
  type ItemId,
  lastDayOf,
  type Money,
  moneyInWords,
  type NoticeKind,
  nameOfId,
  neutralised,
  type OrderId,
  originsOf,
  type PersonId,
  type ProductId,
  plainAmount,
  priceInWords,
  reachDifference,
  readAmount,
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
} from '@/store';
import { id } from '../forms';
import {
  type Administrator,
  momentAt,
  plainRequest,
  requirePermission,
  type SiteState,
  type Trivet,
} from '../running';
import { type Till, TillTrouble } from '../till';
import { askAbout } from './ask-till';
import { type NamedItem, standsAlone } from './shop-desk';

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

const paidBy = ({ state }: Order): number => state.payments.reduce((sum, { amount }) => sum + amount, 0);
const leftOf = (order: Order): number => paidBy(order) - order.state.refunded;

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

/** What ending an order would do to whoever has it. */
export interface IfEnded {
  readonly closes: readonly NamedItem[];
  readonly opens: readonly NamedItem[];
  /** What they lose: "level Observer". */
  readonly loses: readonly string[];
  /** What they keep although the order gives it too, and by what: "level Friend, by hand". */
  readonly keeps: readonly string[];
}

export interface OrderReport {
  readonly sale: Sale;
  readonly notices: readonly ToldNotice[];
  readonly ifEnded: IfEnded | null;
  /** What can still be given back, as it is typed; empty where that is nothing. */
  readonly refundable: string;
  readonly currency: string;
  readonly canStop: boolean;
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
  return {
    sale,
    notices: (await readNotices(db, order.id)).map((notice) => toldOf(state, notice)),
    ifEnded: ifEnded(state, order, now),
    refundable:
      left > 0 && order.reference !== null
        ? plainAmount({ amount: left, currency: order.agreed.currency })
        : '',
    currency: order.agreed.currency,
    canStop: order.state.renews !== null && order.reference !== null,
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

/** What ending an order today would take from whoever has it, and what it leaves them. */
function ifEnded(state: SiteState, order: Order, now: Date): IfEnded | null {
  const person = order.person && state.people.get(order.person);
  const bought = person && (state.bought.get(person.id) ?? []);
  if (!person || !bought?.some((one) => one.order?.id === order.id)) return null;
  const request = plainRequest(state, now);
  const yesterday = addDays(request.today, -1);
  const purchases = (person.facts.purchases ?? []).map((one) =>
    one.order?.id === order.id ? { ...one, until: yesterday, state: 'refunded' as const } : one,
  );
  const after = factsOf(
    { ...person.facts, groupsSince: person.groupsSince, enrolments: person.enrolments, purchases },
    state,
  );
  const { opens, closes } = reachDifference(state.live.compiled, person.facts, after, request);
  const named = (ids: readonly string[]): readonly NamedItem[] =>
    ids
      .filter((one) => standsAlone(state, asId<ItemId>(one)))
      .map((one) => ({
        id: one as NamedItem['id'],
        title: state.outline.items.get(one as NamedItem['id'])?.title ?? '',
      }));
  const { vocabulary } = state.live.compiled;
  const words = ({
    kind,
    id: of,
  }: {
    readonly kind: 'level' | 'role' | 'group' | 'course';
    readonly id: string;
  }) => `${kind} ${nameOfId(vocabulary, kind, of) ?? ''}`;
  const [has, stays] = [person.facts, after].map((facts) => originsOf(facts, request.today));
  const isIn = (list: typeof has, one: { readonly kind: string; readonly id: string }) =>
    list?.find((other) => other.kind === one.kind && other.id === one.id);
  const given = (has ?? []).filter(({ through }) => through === order.product);
  return {
    closes: named(closes),
    opens: named(opens),
    loses: given.filter((one) => !isIn(stays, one)).map(words),
    keeps: given.flatMap((one) => {
      const kept = isIn(stays, one);
      if (!kept) return [];
      const by =
        kept.through === null
          ? 'by hand'
          : `by ${nameOfId(vocabulary, 'product', kept.through) ?? nameOfId(vocabulary, 'group', kept.through) ?? 'something else'}`;
      return [`${words(one)}, ${by}`];
    }),
  };
}

export type SaleStep =
  | { readonly kind: 'done'; readonly summary: string }
  | { readonly kind: 'wrong'; readonly message: string };

const wrong = (message: string): SaleStep => ({ kind: 'wrong', message });

const refunding = z.strictObject({
  order: id,
  /** As it is typed. */
  amount: z.string().max(30),
  ends: z.boolean(),
  /** Tells this refund from another, so that sending it twice gives back once. */
  key: z.string().min(8).max(100),
});

/** Gives money back, and ends what was bought with it or not. */
export async function refundOrder(
  trivet: Trivet,
  till: Till | null,
  administrator: Administrator,
  input: unknown,
  now: Date,
): Promise<SaleStep> {
  requirePermission(administrator, 'everything');
  const parsed = refunding.safeParse(input);
  if (!parsed.success) return wrong('Say what is to be given back.');
  const order = await readOrder(trivet.db, parsed.data.order);
  if (!order?.reference || till === null) return wrong('The till knows nothing of this order.');
  const { currency } = order.agreed;
  const amount = readAmount(parsed.data.amount, currency);
  if (typeof amount !== 'number') return wrong(amount.problem);
  const left = leftOf(order);
  if (amount === 0) return wrong('Give back more than nothing.');
  if (amount > left) return wrong(`At most ${moneyInWords({ amount: left, currency })} can be given back.`);
  const { reference } = order;
  return asked(async () => {
    await till.refund(reference, { key: parsed.data.key, amount, ends: parsed.data.ends }, now);
    await askAbout(trivet, till, order, now);
    return `${moneyInWords({ amount, currency })} given back to ${order.name}${parsed.data.ends ? `, and ${order.productName} ended` : ''}`;
  });
}

const ending = z.strictObject({ order: id, when: z.enum(['now', 'at the end']) });

/** Ends a subscription, now or with the time that is paid for. */
export async function endOrder(
  trivet: Trivet,
  till: Till | null,
  administrator: Administrator,
  input: unknown,
  now: Date,
): Promise<SaleStep> {
  requirePermission(administrator, 'everything');
  const parsed = ending.safeParse(input);
  if (!parsed.success) return wrong('Say when it is to end.');
  const order = await readOrder(trivet.db, parsed.data.order);
  if (!order?.reference || till === null) return wrong('The till knows nothing of this order.');
  const { reference } = order;
  return asked(async () => {
    await till.cancel(reference, parsed.data.when, now);
    await askAbout(trivet, till, order, now);
    return parsed.data.when === 'now'
      ? `${order.productName} of ${order.name} ended`
      : `${order.productName} of ${order.name} will not renew`;
  });
}

async function asked(step: () => Promise<string>): Promise<SaleStep> {
  try {
    return { kind: 'done', summary: await step() };
  } catch (error) {
    if (error instanceof TillTrouble) return wrong(`${error.message} Nothing was changed; try again.`);
    throw error;
  }
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
