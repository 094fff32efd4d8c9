import type { Condition } from '../condition/condition';
import type { ItemId } from '../ids';

/** Points at one item, or at an item and everything beneath it. */
export interface Pointed {
  readonly kind: 'item' | 'branch';
  readonly item: ItemId;
}

/** Describes items: every one of which a condition over item facts holds, now and later. */
export interface Described {
  readonly kind: 'selection';
  readonly where: Condition;
}

export type Target = Pointed | Described;

/** Some items of a site: targets joined by or, minus exclusions. */
export interface What {
  readonly targets: readonly Target[];
  readonly except: readonly Target[];
}
