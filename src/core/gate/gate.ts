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

function reach(targets: readonly Target[], outline: Outline): Set<ItemId> {
  const reached = new Set<ItemId>();
  for (const target of targets) {
    if (target.kind === 'branch') for (const item of below(outline, target.item)) reached.add(item.id);
    else if (outline.items.has(target.item)) reached.add(target.item);
  }
  return reached;
}
