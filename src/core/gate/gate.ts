import type { Condition } from '../condition/condition';
import type { GateId, ItemId } from '../ids';
import { below, type Outline } from '../site/outline';
import type { TurnAway } from './turn-away';

/** What a gate points at: one item, or an item and everything beneath it. */
export interface Target {
  readonly kind: 'item' | 'branch';
  readonly item: ItemId;
}

/** The first leg: targets joined by or, minus exclusions. */
export interface What {
  readonly targets: readonly Target[];
  readonly except: readonly Target[];
}

/** One case of the third leg. */
export interface Case {
  readonly when: Condition;
  readonly give: TurnAway;
}

/** The third leg: cases, first match wins. The last has no condition, so there is always an answer. */
export interface Otherwise {
  readonly cases: readonly Case[];
  readonly last: TurnAway;
}

/**
 * A gate stands on three legs: what it covers, who passes, and what everyone else gets. With the stance *also* it
 * adds to the gates above it; with *instead* it sets them aside for the items it covers.
 */
export interface Gate {
  readonly id: GateId;
  readonly what: What;
  readonly who: Condition;
  readonly otherwise: Otherwise;
  readonly stance: 'also' | 'instead';
}

/** The ids of the items that a gate covers. A target that no longer exists covers nothing. */
export function coverage(what: What, outline: Outline): ReadonlySet<ItemId> {
  const covered = reach(what.targets, outline);
  for (const id of reach(what.except, outline)) covered.delete(id);
  return covered;
}

/**
 * Points at an item: covers it if the gate did not, leaves it out if it did. Prefers taking back what was said before
 * (a target of its own, an exclusion) to saying more.
 */
export function pointAt(what: What, item: ItemId, outline: Outline): What {
  const others = (targets: readonly Target[]) => targets.filter((target) => target.item !== item);
  const covered = coverage(what, outline).has(item);
  const narrower = covered
    ? { ...what, targets: others(what.targets) }
    : { ...what, except: others(what.except) };
  if (coverage(narrower, outline).has(item) !== covered) return narrower;
  const target: Target = { kind: 'item', item };
  return covered
    ? { ...narrower, except: [...what.except, target] }
    : { targets: [...what.targets, target], except: narrower.except };
}

function reach(targets: readonly Target[], outline: Outline): Set<ItemId> {
  const reached = new Set<ItemId>();
  for (const target of targets) {
    if (target.kind === 'branch') for (const item of below(outline, target.item)) reached.add(item.id);
    else if (outline.items.has(target.item)) reached.add(target.item);
  }
  return reached;
}
