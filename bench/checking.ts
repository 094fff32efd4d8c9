/** Checking: the effect of a change over a large membership, a large board from nothing, a walk beside the site. */
import {
  all,
  any,
  asId,
  type CompiledPolicy,
  type Condition,
  columnsOf,
  compile,
  decide,
  effectOf,
  everyone,
  type Gate,
  type GateId,
  type ItemId,
  matrixOf,
  not,
  openPolicy,
  type Policy,
  placesIn,
  redirectToSignIn,
  requestAt,
  type VisitorFacts,
} from '../src/core';
import { boardKeeper } from '../src/desk/board/board-worker';
import { crowd, milliseconds, tests, vocabulary } from './conditions';
import { cookieOf, rate, type Target } from './serve';
import { siteOf } from './site';

const { audiences: _, ...names } = vocabulary;
const request = requestAt({ today: '2026-11-20', minute: 1200, weekday: 'Friday' });

/** So many gates, on branches and single pages, each asking a few things. */
export function policyOf(gates: number, pages: number): Policy {
  const list = tests();
  const pick = (at: number): Condition => list[(at * 7919) % list.length] as Condition;
  return {
    ...openPolicy,
    gates: Array.from({ length: gates }, (_, at): Gate => {
      const item = asId<ItemId>(`page-${at % 3 === 0 ? at % 100 : (at * 31) % pages}`);
      return {
        id: asId<GateId>(`g${at}`),
        what: { targets: [{ kind: at % 3 === 0 ? 'branch' : 'item', item }], except: [] },
        who: any(all(pick(at), not(pick(at + 1))), pick(at + 2)),
        otherwise: {
          cases: [
            {
              when: pick(at + 3),
              give: { kind: 'message', reason: { kind: 'own', text: `Gate ${at}` }, next: { kind: 'none' } },
            },
          ],
          last: redirectToSignIn,
        },
        stance: 'also',
      };
    }),
  };
}

/** So many gates changed: every other one opened to everyone, the others closed further. */
const changed = (policy: Policy, count: number): Policy => ({
  ...policy,
  gates: policy.gates.map((gate, at) =>
    at >= count
      ? gate
      : at % 2 === 0
        ? { ...gate, who: everyone }
        : { ...gate, who: all(gate.who, policy.gates[at + 1]?.who ?? everyone) },
  ),
});

/** Milliseconds for the effect of a change of one gate and of many, compiling included, once the columns are built. */
export function benchEffect(people = 1_000_000, items = 10_000, gates = 500, turns = 3) {
  const half = Math.floor(items / 2);
  const { outline } = siteOf(0, half);
  const policy = policyOf(gates, half);
  const before = compile(policy, outline, names);
  const facts = crowd(people);
  const columns = columnsOf(facts, { ...names, audiences: [] }, request);
  const start = milliseconds();
  for (const test of tests()) columns.select(test);
  const building = milliseconds() - start;
  const time = (count: number) => {
    const next = changed(policy, count);
    const best = { whole: Number.POSITIVE_INFINITY, compiling: 0, touched: 0 };
    for (let turn = 0; turn < turns; turn++) {
      const first = milliseconds();
      const after = compile(next, outline, names);
      const second = milliseconds();
      const effect = effectOf(before, after, columns, request);
      const third = milliseconds();
      agree(effect, before, after, facts);
      if (third - first >= best.whole) continue;
      best.whole = third - first;
      best.compiling = second - first;
      best.touched = effect.shifts.flatMap(({ items: those }) => those).length;
    }
    return best;
  };
  return { building, items: outline.items.size, one: time(1), many: time(Math.ceil(gates / 10)) };
}

/** Some of the people, one by one: what the columns say has to be what deciding says. */
function agree(
  { gains }: ReturnType<typeof effectOf>,
  before: CompiledPolicy,
  after: CompiledPolicy,
  facts: readonly VisitorFacts[],
): void {
  const gained = new Set<number>();
  for (const place of placesIn(gains.bits)) if (place < 200) gained.add(place);
  const sample = facts.slice(0, 20);
  for (const [place, visitor] of sample.entries()) {
    const gains = [...after.outline.items.keys()].some(
      (id) =>
        decide(after, id, visitor, request).kind === 'open' &&
        decide(before, id, visitor, request).kind !== 'open',
    );
    if (gains !== gained.has(place)) throw new Error('The two disagree.');
  }
}

/** Milliseconds for a whole board from nothing: outline, both policies compiled, every decision. */
export function benchBoardCells(items = 5000, visitors = 50, gates = 100, turns = 5) {
  const half = Math.floor(items / 2);
  const { items: list, outline } = siteOf(0, half);
  const policy = policyOf(gates, half);
  const facts = crowd(visitors);
  const question = {
    number: 1,
    site: { items: list, names: names },
    draft: changed(policy, gates / 10),
    live: policy,
    visitors: facts,
    request,
  };
  let best = Number.POSITIVE_INFINITY;
  let cells = 0;
  for (let turn = 0; turn < turns; turn++) {
    const start = milliseconds();
    cells = boardKeeper()(question).matrix.draft.length;
    best = Math.min(best, milliseconds() - start);
  }
  const live = compile(policy, outline, names);
  const start = milliseconds();
  matrixOf({ draft: live, live }, list, facts, request);
  return { whole: best, deciding: milliseconds() - start, cells };
}

/** The same page on the site and on a walk, as one and the same member: requests per second, taking turns. */
export async function benchWalk(port: number, span = 1500, rounds = 5) {
  const [greta, tobin] = await Promise.all([cookieOf(port, 'greta'), cookieOf(port, 'tobin')]);
  const base = `http://127.0.0.1:${port}`;
  const answer = await fetch(`${base}/desk/api/walks`, {
    method: 'POST',
    headers: { cookie: greta, 'content-type': 'application/json' },
    body: JSON.stringify({ standIn: { person: 'tobin' }, side: 'live' }),
  });
  const { token } = (await answer.json()) as { token: string };
  const targets: Readonly<Record<'site' | 'walk', Target>> = {
    site: { path: '/observers/charts', cookie: tobin, status: 200 },
    walk: { path: `/walk/${token}/observers/charts`, cookie: greta, status: 200 },
  };
  const rates = { site: [] as number[], walk: [] as number[] };
  for (let round = 0; round <= rounds; round++)
    for (const kind of ['site', 'walk'] as const) {
      const found = await rate(port, targets[kind], span);
      if (round > 0) rates[kind].push(found);
    }
  const median = (list: readonly number[]) =>
    list.toSorted((a, b) => a - b)[Math.floor(list.length / 2)] ?? 0;
  return { site: median(rates.site), walk: median(rates.walk) };
}
