/**
 * Compiling a policy: coverage resolved for every item, conditions turned into closures and shared, and for each item
 * one list of hurdles in the order in which they speak. After that a decision is a walk down a short list.
 */
import { type ConditionCompiler, conditionCompiler, type Predicate } from '../condition';
import { coverage, type Gate } from '../gate';
import type { ItemId } from '../ids';
import {
  containerOf,
  type Item,
  type Outline,
  type RequestFacts,
  type SiteNames,
  type VisitorFacts,
  type Vocabulary,
} from '../site';
import type { TurnedAway } from './decision';
import { type Policy, vocabularyOf } from './policy';
import { turnedAwayBy, unpublishedAt } from './turn-away-at';

/** A gate over one item, with its stance already taken into account. */
export interface CoveringGate {
  readonly gate: Gate;
  /** Set aside by a later gate that says *instead*. */
  readonly setAside: boolean;
}

/** One thing that can turn a visitor away from an item. */
export interface Hurdle {
  /** Where it stands: over the item itself, a container of it or its target. Facts of the item are this one's. */
  readonly at: Item;
  readonly passes: Predicate;
  readonly away: (visitor: VisitorFacts, request: RequestFacts) => TurnedAway;
}

/** A policy made ready for deciding, together with the site and the names it was compiled for. */
export interface CompiledPolicy {
  readonly policy: Policy;
  readonly outline: Outline;
  /** The site's names and the policy's audiences. */
  readonly vocabulary: Vocabulary;
  /** The gates over each item in order; those set aside are kept for explaining. */
  readonly covering: ReadonlyMap<ItemId, readonly CoveringGate[]>;
  readonly hurdles: ReadonlyMap<ItemId, readonly Hurdle[]>;
}

/** Compiles a policy. Do it once per revision and keep the result. */
export function compile(policy: Policy, outline: Outline, names: SiteNames): CompiledPolicy {
  const vocabulary = vocabularyOf(names, policy);
  const covering = gatesByItem(policy, outline);
  const closures = conditionCompiler(vocabulary);
  const hurdleFor = hurdleMaker(closures, vocabulary);
  const hurdles = new Map<ItemId, readonly Hurdle[]>();
  const collect = (item: Item, kind: Item['kind']): Hurdle[] => {
    const own = [
      ...(item.published ? [] : [unpublished(item, kind)]),
      ...(covering.get(item.id) ?? [])
        .filter(({ setAside }) => !setAside)
        .map(({ gate }) => hurdleFor(gate, item, kind)),
    ];
    return own.concat(restsOn(outline, item).flatMap((other) => collect(other, kind)));
  };
  for (const item of outline.items.values()) hurdles.set(item.id, collect(item, item.kind));
  return { policy, outline, vocabulary, covering, hurdles };
}

/** What else must be open for an item to be: its container, and for a link the page it leads to. */
export function restsOn(outline: Outline, item: Item): readonly Item[] {
  const container = containerOf(outline, item);
  const target =
    item.kind === 'link' && item.target.kind === 'item' ? outline.items.get(item.target.item) : undefined;
  return [container, target].filter((other): other is Item => other !== null && other !== undefined);
}

function gatesByItem(policy: Policy, outline: Outline): ReadonlyMap<ItemId, readonly CoveringGate[]> {
  const byItem = new Map<ItemId, CoveringGate[]>();
  for (const gate of policy.gates) {
    for (const id of coverage(gate.what, outline)) {
      const above = byItem.get(id) ?? [];
      const kept = gate.stance === 'instead' ? above.map((entry) => ({ ...entry, setAside: true })) : above;
      byItem.set(id, [...kept, { gate, setAside: false }]);
    }
  }
  return byItem;
}

const unpublished = (item: Item, kind: Item['kind']): Hurdle => {
  const away = unpublishedAt(item.id, kind);
  return { at: item, passes: () => false, away: () => away };
};

function hurdleMaker(closures: ConditionCompiler, vocabulary: Vocabulary) {
  return (gate: Gate, at: Item, kind: Item['kind']): Hurdle => {
    const cases = gate.otherwise.cases.map((entry) => ({
      applies: closures(entry.when),
      away: turnedAwayBy(gate, entry.give, at.id, kind, vocabulary),
    }));
    const last = turnedAwayBy(gate, gate.otherwise.last, at.id, kind, vocabulary);
    return {
      at,
      passes: closures(gate.who),
      away: (visitor, request) => {
        for (const entry of cases) if (entry.applies(visitor, at, request)) return entry.away;
        return last;
      },
    };
  };
}
