/** What is certain about gates by themselves: that nobody passes, that two contradict, that one changes nothing. */
import { everyone, nobody } from '../condition';
import type { Gate } from '../gate';
import type { ItemId } from '../ids';
import type { CompiledPolicy, Hurdle } from '../policy';
import { same } from '../same';
import { isShared } from '../site';
import { type Diagram, NONE } from './diagram';
import type { Finding } from './finding';
import type { Reach } from './reach';

/** The gates on the way to items, without what says that something is not published. */
export interface Way {
  readonly items: ItemId[];
  readonly hurdles: readonly (Hurdle & { readonly gate: Gate })[];
}

/** Items to which the same gates ask the same of everybody go one way. */
export function waysIn({ compiled, wayTo }: Reach): readonly Way[] {
  const { outline, hurdles } = compiled;
  const ways = new Map<number, Way>();
  for (const [item, found] of outline.items) {
    // What a shared section asks, it asks at its hosts.
    if (isShared(found)) continue;
    const gates = (hurdles(item) ?? []).filter(
      (one): one is Hurdle & { readonly gate: Gate } => one.gate !== null,
    );
    if (gates.length === 0) continue;
    const way = wayTo(item);
    const known = ways.get(way);
    if (known) known.items.push(item);
    else ways.set(way, { items: [item], hurdles: gates });
  }
  return [...ways.values()];
}

export const hurdlesOf = (gate: Gate, { hurdles }: Way) => hurdles.filter((one) => one.gate === gate);
/** Those there could be who pass all of some hurdles. */
export const passing = (reach: Reach, hurdles: readonly Hurdle[]): Diagram =>
  reach.space.all(new Set([reach.possible, ...hurdles.map(reach.passing)]));

/** The gates that cover something, and to which later ones leave nothing of it. */
export function idleGates({ covering }: CompiledPolicy): ReadonlySet<Gate> {
  const [covers, speaks] = [new Set<Gate>(), new Set<Gate>()];
  for (const gates of covering.values())
    for (const { gate, setAside: aside } of gates) (aside ? covers : speaks).add(gate);
  return new Set([...covers].filter((gate) => !speaks.has(gate)));
}

export function nobodyPasses(reach: Reach, gate: Gate, own: readonly Way[]): readonly Finding[] {
  // Who says *nobody* means it.
  if (own.length === 0 || same(gate.who, nobody)) return [];
  const closed = own.every((way) => passing(reach, hurdlesOf(gate, way)) === NONE);
  return closed ? [{ gate: gate.id, kind: 'nobody passes' }] : [];
}

export function contradictions(reach: Reach, gate: Gate, own: readonly Way[]): readonly Finding[] {
  const items = new Map<Gate, ItemId[]>();
  for (const way of own) {
    const mine = passing(reach, hurdlesOf(gate, way));
    if (mine === NONE) continue;
    for (const other of new Set(way.hurdles.map((one) => one.gate))) {
      if (other === gate) continue;
      const theirs = passing(reach, hurdlesOf(other, way));
      if (theirs === NONE || reach.space.and(mine, theirs) !== NONE) continue;
      items.set(other, (items.get(other) ?? []).concat(way.items));
    }
  }
  return [...items].map(([other, closed]) => ({
    gate: gate.id,
    kind: 'contradiction',
    other: other.id,
    items: closed,
  }));
}

export function changesNothing(reach: Reach, gate: Gate, own: readonly Way[]): readonly Finding[] {
  if (own.length === 0 || gate.stance === 'instead' || same(gate.who, everyone)) return [];
  const { space } = reach;
  const needless = own.every((way) => {
    const others = passing(
      reach,
      way.hurdles.filter((one) => one.gate !== gate),
    );
    return space.and(others, space.not(passing(reach, hurdlesOf(gate, way)))) === NONE;
  });
  return needless ? [{ gate: gate.id, kind: 'changes nothing' }] : [];
}

export function unreachedCases(reach: Reach, gate: Gate, own: readonly Way[]): readonly Finding[] {
  const { space } = reach;
  const places = new Map(own.flatMap((way) => hurdlesOf(gate, way).map((one) => [one.at.id, one] as const)));
  const reached = new Set<number>();
  for (const hurdle of places.values()) {
    let left = space.and(reach.possible, space.not(reach.passing(hurdle)));
    gate.otherwise.cases.forEach(({ when }, index) => {
      const here = reach.meeting(when, hurdle.at);
      if (space.and(left, here) !== NONE) reached.add(index);
      left = space.and(left, space.not(here));
    });
  }
  if (places.size === 0) return [];
  return gate.otherwise.cases.flatMap((_, index) =>
    reached.has(index) ? [] : [{ gate: gate.id, kind: 'case never reached', index } as const],
  );
}
