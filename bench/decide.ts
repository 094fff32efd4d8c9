/** Nanoseconds per decision, against closures written by hand that make the same decision, in one run. */

import { larkfell } from '../demo/larkfell';
import {
  asId,
  compile,
  type Decision,
  decide,
  type GroupId,
  type ItemId,
  guest as nobody,
  open,
  requestAt,
  type VisitorFacts,
} from '../src/core';
import { personOf, readSiteFile } from '../src/services';

const site = await readSiteFile(larkfell);
if ('problems' in site) throw new Error(site.problems.join('\n'));
const request = requestAt({ today: '2026-11-20', minute: 1200, weekday: 'Friday' });
const compiled = compile(site.policy, site.outline, site.names);
const visitors: VisitorFacts[] = [
  nobody,
  ...(site.people ?? []).map(
    (person) =>
      personOf(person, { ...site, settings: { shareKey: '00' }, bought: new Map(), unconfirmed: new Set() })
        .facts,
  ),
];

const charts = asId<ItemId>('charts');
const rota = asId<ItemId>('rota');
const visit = asId<ItemId>('visit');
const away = (item: ItemId, visitor: VisitorFacts): Decision => decide(compiled, item, visitor, request);
const guest = visitors[0] as VisitorFacts;
const member = visitors[2] as VisitorFacts;
const [toSignIn, teaser, missing] = [away(charts, guest), away(charts, member), away(rota, guest)];

const RANKS: Record<string, number> = { friend: 0, observer: 1, keeper: 2 };
const suspended = asId<GroupId>('suspended');
const crew = asId<GroupId>('dome-crew');

/** By hand: what somebody would write for these three pages. */
const byHand = new Map<ItemId, (visitor: VisitorFacts) => Decision>([
  [
    charts,
    (visitor) => {
      const rank = visitor.level === null ? -1 : (RANKS[visitor.level] ?? -1);
      if (rank >= 1 && visitor.groups !== null && !visitor.groups.includes(suspended)) return open;
      return visitor.signedIn ? teaser : toSignIn;
    },
  ],
  [rota, (visitor) => (visitor.groups?.includes(crew) ? open : missing)],
  [visit, () => open],
]);

const pages = [charts, rota, visit];
for (const page of pages) {
  for (const visitor of visitors) {
    if (byHand.get(page)?.(visitor).kind !== decide(compiled, page, visitor, request).kind)
      throw new Error('The two disagree.');
  }
}

/** Runs every page for every visitor and answers nanoseconds per decision; the best of several rounds. */
function time(decideOne: (page: ItemId, visitor: VisitorFacts) => Decision, rounds: number): number {
  let opened = 0;
  const start = process.hrtime.bigint();
  for (let round = 0; round < rounds; round++) {
    for (const visitor of visitors)
      for (const page of pages) if (decideOne(page, visitor).kind === 'open') opened++;
  }
  const nanoseconds = Number(process.hrtime.bigint() - start);
  if (opened === 0) throw new Error('Nothing was open.');
  return nanoseconds / (rounds * visitors.length * pages.length);
}

/** Compares the two, taking turns so that both meet the same machine. */
export function benchDecide(
  rounds = 20_000,
  turns = 7,
): { readonly compiled: number; readonly byHand: number } {
  const hand = (page: ItemId, visitor: VisitorFacts) =>
    (byHand.get(page) as (visitor: VisitorFacts) => Decision)(visitor);
  const machine = (page: ItemId, visitor: VisitorFacts) => decide(compiled, page, visitor, request);
  const best = { compiled: Infinity, byHand: Infinity };
  for (let turn = 0; turn < turns; turn++) {
    best.byHand = Math.min(best.byHand, time(hand, rounds));
    best.compiled = Math.min(best.compiled, time(machine, rounds));
  }
  return best;
}
