import type { ItemId } from '../ids';
import type { VisitorFacts } from '../site';
import type { CompiledPolicy } from './compile';
import { type Decision, open } from './decision';
import { noSuchItem } from './turn-away-at';

/**
 * What a visitor gets for an item. Pure: no clock, no database, no I/O. An item that no gate covers is open; an id the
 * site does not have is missing.
 */
export function decide(compiled: CompiledPolicy, item: ItemId, visitor: VisitorFacts): Decision {
  const hurdles = compiled.hurdles.get(item);
  if (!hurdles) return noSuchItem;
  for (const hurdle of hurdles) if (!hurdle.passes(visitor)) return hurdle.away(visitor);
  return open;
}

/** Whether an item's decision can differ between visitors. What can't may be cached for everyone. */
export const dependsOnVisitor = (compiled: CompiledPolicy, item: ItemId): boolean =>
  (compiled.hurdles.get(item) ?? []).length > 0;
