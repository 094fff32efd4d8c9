import type { Condition } from '../condition/condition';
import type { GateId, ItemId } from '../ids';
import { idsBelow, type Outline } from '../site/outline';
import type { Vocabulary } from '../site/vocabulary';
import type { Target, What } from '../site/what';
import { selectedIn } from './selected';
import type { Given } from './turn-away';

export type { Described, Pointed, Target, What } from '../site/what';

/** One case of the third leg. */
export interface Case {
  readonly when: Condition;
  readonly give: Given;
}

/** The third leg: cases, first match wins. The last has no condition, so there is always an answer. */
export interface Otherwise {
  readonly cases: readonly Case[];
  readonly last: Given;
}

/**
 * A gate stands on three legs: what it covers, who passes, and what everyone else gets. With the stance *also* it
 * adds to the gates above it; with *instead* it sets them aside for the items it covers.
 */
export interface Gate {
  readonly id: GateId;
  /** The first leg. */
  readonly what: What;
  readonly who: Condition;
  readonly otherwise: Otherwise;
  readonly stance: 'also' | 'instead';
}

/**
 * The ids of the items that a gate covers. A target that no longer exists covers nothing. Where a fact of an item is
 * missing, doubt falls to the closed side: a gate that adds covers what may be meant and leaves out only what certainly
 * is; one that sets others aside the other way round.
 */
export function coverage(
  { what, stance }: Pick<Gate, 'what' | 'stance'>,
  outline: Outline,
  vocabulary: Vocabulary,
): ReadonlySet<ItemId> {
  const doubt = stance === 'also';
  const covered = reach(what.targets, outline, vocabulary, doubt);
  for (const id of reach(what.except, outline, vocabulary, !doubt)) covered.delete(id);
  return covered;
}

/**
 * Points at an item: covers it if the gate did not, leaves it out if it did. Prefers taking back what was said before
 * (a target of its own, an exclusion) to saying more.
 */
export function pointAt(
  gate: Pick<Gate, 'what' | 'stance'>,
  item: ItemId,
  outline: Outline,
  vocabulary: Vocabulary,
): What {
  const { what, stance } = gate;
  const others = (targets: readonly Target[]) =>
    targets.filter((target) => target.kind === 'selection' || target.item !== item);
  const covered = coverage(gate, outline, vocabulary).has(item);
  const narrower = covered
    ? { ...what, targets: others(what.targets) }
    : { ...what, except: others(what.except) };
  if (coverage({ what: narrower, stance }, outline, vocabulary).has(item) !== covered) return narrower;
  const target: Target = { kind: 'item', item };
  return covered
    ? { ...narrower, except: [...what.except, target] }
    : { targets: [...what.targets, target], except: narrower.except };
}

/** A gate that covers items as well, those that it covers already as they are. */
export function coverToo(
  gate: Gate,
  items: readonly ItemId[],
  outline: Outline,
  vocabulary: Vocabulary,
): Gate {
  let wider = gate;
  for (const item of items)
    if (!coverage(wider, outline, vocabulary).has(item))
      wider = { ...wider, what: pointAt(wider, item, outline, vocabulary) };
  return wider;
}

/** The same items, each once; without a set, where there is nothing to take out or put together. */
export function coveredBy(
  gate: Pick<Gate, 'what' | 'stance'>,
  outline: Outline,
  vocabulary: Vocabulary,
): Iterable<ItemId> {
  const { targets, except } = gate.what;
  const [only, ...others] = targets;
  return only && others.length === 0 && except.length === 0
    ? meantBy(only, outline, vocabulary, gate.stance === 'also')
    : coverage(gate, outline, vocabulary);
}

function reach(
  targets: readonly Target[],
  outline: Outline,
  vocabulary: Vocabulary,
  doubt: boolean,
): Set<ItemId> {
  const reached = new Set<ItemId>();
  for (const target of targets) for (const id of meantBy(target, outline, vocabulary, doubt)) reached.add(id);
  return reached;
}

/** The items that a target means, each once. */
function meantBy(
  target: Target,
  outline: Outline,
  vocabulary: Vocabulary,
  doubt: boolean,
): readonly ItemId[] {
  switch (target.kind) {
    case 'selection':
      return selectedIn(target.where, outline, vocabulary, doubt);
    case 'branch':
      return idsBelow(outline, target.item);
    case 'item':
      return outline.items.has(target.item) ? [target.item] : [];
    default:
      return target satisfies never;
  }
}
