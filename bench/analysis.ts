/** What is certain about the gates of a site of some size: 200 gates that ask about 40 things, over 500 items. */
import {
  all,
  analyse,
  any,
  asId,
  type Condition,
  compile,
  type Finding,
  type Gate,
  type GroupId,
  type ItemId,
  inGroup,
  not,
  openPolicy,
} from '../src/core';
import { gate, names, siteOf } from './site';

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
  const compiled = compile({ ...openPolicy, gates: gatesOver(open, gates, things) }, outline, site);
  const took: number[] = [];
  let found: readonly Finding[] = [];
  for (let round = 0; round < rounds; round++) {
    const start = performance.now();
    found = analyse(compiled, '2026-11-20', { byGroup: new Map(), byProduct: new Map() }, new Set()).findings;
    took.push(performance.now() - start);
  }
  return {
    findings: took.toSorted((a, b) => a - b)[Math.floor(rounds / 2)] ?? 0,
    notDecided: found.filter(({ kind }) => kind === 'not decided').length,
  };
}
