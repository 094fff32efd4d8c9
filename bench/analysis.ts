/** What is certain of a site of some size: 200 gates that ask about 40 things, over 500 items. */
import {
  all,
  analyse,
  any,
  asId,
  type Condition,
  compile,
  decide,
  type Expectation,
  expectationsProved,
  type Finding,
  type Gate,
  type GroupId,
  type ItemId,
  inGroup,
  type Kinds,
  kindsOf,
  member,
  not,
  openPolicy,
  outcomeOf,
  representativesOf,
  requestAt,
  type Verdict,
} from '../src/core';
import { gate, names, siteOf } from './site';

const moment = requestAt({ today: '2026-11-20', minute: 720, weekday: 'Friday' });

const group = (at: number): GroupId => asId<GroupId>(`group-${at}`);

/** Gates of two to four tests each, drawn by a rule that spreads them over all groups. */
function gatesOver(items: readonly ItemId[], count: number, things: number): readonly Gate[] {
  const who = (at: number): Condition => {
    const [a, b, c] = [at % things, (at * 7 + 3) % things, (at * 13 + 5) % things].map((one) =>
      inGroup(group(one)),
    ) as [Condition, Condition, Condition];
    return at % 3 === 0 ? any(a, b) : at % 3 === 1 ? all(a, not(b)) : any(all(a, b), c);
  };
  return Array.from({ length: count }, (_, at) => {
    const targets = [0, 1, 2].map((by) => ({
      kind: 'item' as const,
      item: items[(at * 5 + by * 31) % items.length] ?? asId<ItemId>('site'),
    }));
    return gate(`gate-${at}`, { targets, except: [] }, who(at));
  });
}

export interface AnalysisMeasured {
  /** Milliseconds for everything that is found, compiling not counted; the median. */
  readonly findings: number;
  readonly notDecided: number;
  /** The same after the condition of one gate was changed, compiling counted. */
  readonly edited: number;
  /** The same for twenty expectations over the whole site. */
  readonly proofs: number;
  readonly proved: number;
  /** The same for twenty kinds of visitor in words, and for counting all there can be as far as anybody counts. */
  readonly kinds: number;
  readonly described: number;
}

export function benchAnalysis(pages = 250, gates = 200, things = 40, rounds = 5): AnalysisMeasured {
  const { outline, items } = siteOf(0, pages);
  const open = items.filter(({ kind }) => kind === 'page').map(({ id }) => id);
  const site = {
    ...names,
    groups: Array.from({ length: things }, (_, at) => ({
      id: group(at),
      name: `Group ${at}`,
      private: false,
    })),
  };
  const policy = { ...openPolicy, gates: gatesOver(open, gates, things) };
  const expectations = Array.from(
    { length: 20 },
    (_, at): Expectation => ({
      id: asId(`expectation-${at}`),
      who: inGroup(group(at % things)),
      claim: { kind: 'never sees' },
      what: { targets: [{ kind: 'branch', item: outline.root }], except: [] },
    }),
  );
  const compiled = compile(policy, outline, site);
  const expecting = compile({ ...policy, expectations }, outline, site);
  const following = { byGroup: new Map(), byProduct: new Map() };
  const representatives = representativesOf(compiled);
  const wanted = Array.from({ length: 20 }, (_, at) => {
    const visitor = member({ groups: [at, at + 7, at + 13].map((one) => group(one % things)) });
    return representatives.map(({ item }) => outcomeOf(decide(compiled, item, visitor, moment)));
  });
  const median = (work: () => void): number => {
    const took = Array.from({ length: rounds }, () => {
      const start = performance.now();
      work();
      return performance.now() - start;
    });
    return took.toSorted((a, b) => a - b)[Math.floor(rounds / 2)] ?? 0;
  };
  let found: readonly Finding[] = [];
  let verdicts: readonly Verdict[] = [];
  let kinds: Kinds | null = null;
  const findings = median(() => {
    found = analyse(compiled, moment.today, following, new Set()).findings;
  });
  let turn = 0;
  const edited = median(() => {
    turn += 1;
    const at = turn % gates;
    const changed = policy.gates.map((one, place) =>
      place === at ? { ...one, who: all(one.who, not(inGroup(group((at + 1) % things)))) } : one,
    );
    const after = compile({ ...policy, gates: changed }, outline, site);
    analyse(after, moment.today, following, new Set());
  });
  const proofs = median(() => {
    verdicts = expectationsProved(expecting, moment.today, following);
  });
  const ofKinds = median(() => {
    kinds = kindsOf(compiled, following, moment, wanted);
  });
  return {
    findings,
    edited,
    notDecided: found.filter(({ kind }) => kind === 'not decided').length,
    proofs,
    proved: verdicts.filter(({ kind }) => kind === 'holds' || kind === 'broken').length,
    kinds: ofKinds,
    described: (kinds as Kinds | null)?.kinds.filter(({ who }) => who !== null).length ?? 0,
  };
}
