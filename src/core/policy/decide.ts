import type { ItemId } from '../ids';
import type { RequestFacts, VisitorFacts } from '../site';
import { type CompiledPolicy, type Hurdle, hurdlesOf } from './compile';
import { type Decision, open } from './decision';
import { noSuchItem } from './turn-away-at';

/**
 * What a visitor gets for an item, or for a shared section on one of its hosts (`placeId`). Pure: no clock, no database, no
 * I/O; the time is part of the request. An item that no gate covers is open; an id the site does not have is missing.
 */
export function decide(
  compiled: CompiledPolicy,
  item: ItemId,
  visitor: VisitorFacts,
  request: RequestFacts,
): Decision {
  const hurdles = hurdlesOf(compiled, item);
  return hurdles ? decideAlong(hurdles, visitor, request) : noSuchItem;
}

/** What the first hurdle gives that does not let the visitor by. */
export function decideAlong(
  hurdles: readonly Hurdle[],
  visitor: VisitorFacts,
  request: RequestFacts,
): Decision {
  for (const hurdle of hurdles) {
    if (!hurdle.passes(visitor, hurdle.at, request)) return hurdle.away(visitor, request);
  }
  return open;
}

/** The decision for an item that is the same for everyone, always; null where it depends on who asks. */
export const decidedForAll = (compiled: CompiledPolicy, item: ItemId): Decision | null => {
  const hurdles = hurdlesOf(compiled, item);
  return hurdles === null ? noSuchItem : hurdles.length === 0 ? open : null;
};

/** Whether an item's decision can differ between visitors. What can't may be cached for everyone. */
export const dependsOnVisitor = (compiled: CompiledPolicy, item: ItemId): boolean =>
  decidedForAll(compiled, item) === null;
