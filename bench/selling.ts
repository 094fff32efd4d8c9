/** Selling: facts of somebody who bought much, deciding with them, and notices taken one after the other. */

import { larkfell } from '../demo/larkfell';
import {
  asId,
  type ByProduct,
  decide,
  factsOf,
  type GroupId,
  type ItemId,
  type LevelId,
  type Notice,
  nothingYet,
  type OrderId,
  type ProductId,
  type Purchase,
} from '../src/core';
import { importSite, plainRequest, Trivet, takeNotices } from '../src/services';
import { insertOrder, type Order } from '../src/store';

const now = new Date('2026-11-20T20:00:00Z');
const product = (at: number) => asId<ProductId>(`product-${at}`);

const byProduct: ByProduct = new Map(
  Array.from({ length: 20 }, (_, at) => [
    product(at),
    {
      level: at % 3 === 0 ? asId<LevelId>('observer') : null,
      roles: [],
      groups: at % 4 === 0 ? [asId<GroupId>('sky-diary')] : [],
      enrolments: at % 5 === 0 ? [{ course: asId<ItemId>('astrophotography'), days: 90 }] : [],
    },
  ]),
);
const purchases: readonly Purchase[] = Array.from({ length: 20 }, (_, at) => ({
  product: product(at),
  on: `2026-${String(1 + (at % 11)).padStart(2, '0')}-05`,
  until: at % 2 === 0 ? '2026-12-31' : `2026-${String(1 + (at % 11)).padStart(2, '0')}-25`,
  state: 'paid',
}));

const perCall = (calls: number, call: () => unknown): number => {
  const before = performance.now();
  for (let at = 0; at < calls; at++) call();
  return ((performance.now() - before) * 1000) / calls;
};

/** In µs: the facts of somebody with twenty purchases, and the same without; in ns: a decision with
 * them, and about somebody to whom the same was given by hand. */
export async function benchFacts(calls = 20_000) {
  const trivet = await Trivet.open(null);
  const problems = await importSite(trivet, larkfell, 'The benchmarks');
  if (problems.length > 0) throw new Error(problems.join('\n'));
  const { compiled } = trivet.state.live;
  const request = plainRequest(trivet.state, now);
  const following = { byGroup: trivet.state.byGroup, byProduct };
  const held = { groups: [asId<GroupId>('dome-crew')], groupsSince: {}, level: asId<LevelId>('observer') };
  const bought = { ...held, purchases };
  const facts = factsOf(bought, following);
  // The same person with the same things, all of them given by hand.
  const plain = factsOf({ ...held, groups: [...held.groups, asId<GroupId>('sky-diary')] }, following);
  const items = ['observers', 'charts', 'crew', 'keepers', 'tonight'].map((id) => asId<ItemId>(id));
  const rounds = Array.from({ length: 41 }, () => ({
    deriving: perCall(calls, () => factsOf(bought, following)),
    plain: perCall(calls, () => factsOf(held, following)),
    with: perCall(calls, () => items.map((item) => decide(compiled, item, facts, request))) / items.length,
    without: perCall(calls, () => items.map((item) => decide(compiled, item, plain, request))) / items.length,
  }));
  await trivet.close();
  const middle = (of: (round: (typeof rounds)[number]) => number) =>
    rounds.map(of).toSorted((one, other) => one - other)[20] ?? 0;
  return {
    deriving: middle((round) => round.deriving),
    plain: middle((round) => round.plain),
    with: middle((round) => round.with) * 1000,
    without: middle((round) => round.without) * 1000,
  };
}

/** In ms: from a notice to the page that it opens, on the demo; and how many are taken a second, one after the other. */
export async function benchNotices(count = 10_000) {
  const trivet = await Trivet.open(null);
  const problems = await importSite(trivet, larkfell, 'The benchmarks');
  if (problems.length > 0) throw new Error(problems.join('\n'));
  const people = [...trivet.state.people.values()];
  const orderOf = (at: number): Order => ({
    id: asId<OrderId>(`order-${at}`),
    product: asId<ProductId>(at === 0 ? 'observer-pass' : 'winter-atlas'),
    productName: 'Something',
    person: (at === 0 ? people.find(({ id }) => id === 'marek') : people[at % people.length])?.id ?? null,
    email: `${at}@buyers.example`,
    name: 'Somebody',
    price: asId('price'),
    agreed: { currency: 'EUR', amount: 100, months: null, first: 100, freeDays: 0, trial: false },
    voucher: null,
    replaces: null,
    back: '/',
    session: null,
    madeAccount: false,
    notedBy: null,
    reference: null,
    payPage: null,
    made: now,
    payUntil: now,
    askedAt: null,
    state: nothingYet,
    open: true,
    due: [],
  });
  const orders = Math.max(2, Math.ceil(count / 4));
  for (let at = 0; at < orders; at++) await insertOrder(trivet.db, orderOf(at));
  const notice = (at: number, of: number): Notice => {
    const told = { id: `notice-${at}-${of}`, order: asId<OrderId>(`order-${at}`), at: of, on: '2026-11-20' };
    return of === 0
      ? { ...told, kind: 'paid', amount: 100, currency: 'EUR', period: null }
      : { ...told, kind: 'refunded', amount: 10, currency: 'EUR', ends: of === 3 };
  };
  const marek = people.find(({ id }) => id === 'marek');
  const opens = () => {
    const facts = trivet.state.people.get(marek?.id ?? asId(''))?.facts;
    const request = plainRequest(trivet.state, now);
    return (
      facts && decide(trivet.state.live.compiled, asId<ItemId>('observers'), facts, request).kind === 'open'
    );
  };
  const before = performance.now();
  await takeNotices(trivet, [notice(0, 0)], now);
  if (!opens()) throw new Error('It did not open.');
  const first = performance.now() - before;
  const start = performance.now();
  for (let at = 1; at < orders; at++)
    for (let of = 0; of < 4; of++) await takeNotices(trivet, [notice(at, of)], now);
  const seconds = (performance.now() - start) / 1000;
  const kept = await trivet.db.execute<{ count: number }>(
    "select count(*)::int from orders where state ->> 'endedBy' = 'refunded' and (state ->> 'refunded')::int = 30",
  );
  if (kept.rows[0]?.count !== orders - 1) throw new Error('The state is not what was told.');
  await trivet.close();
  return { first, perSecond: ((orders - 1) * 4) / seconds };
}
