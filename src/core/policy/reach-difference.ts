/** What opens and what closes to somebody whose facts change. */
import type { ItemId } from '../ids';
import { isOpenable, type RequestFacts, type VisitorFacts } from '../site';
import type { CompiledPolicy } from './compile';
import { decide, dependsOnVisitor } from './decide';

export interface ReachDifference {
  readonly opens: readonly ItemId[];
  readonly closes: readonly ItemId[];
}

/** The pages, posts, activities and files that open and close when somebody's facts go from these to those. */
export function reachDifference(
  compiled: CompiledPolicy,
  before: VisitorFacts,
  after: VisitorFacts,
  request: RequestFacts,
  /** The request before, where that is another: on another day. */
  requestBefore: RequestFacts = request,
): ReachDifference {
  const opens: ItemId[] = [];
  const closes: ItemId[] = [];
  for (const item of compiled.outline.items.values()) {
    if (!isOpenable(item) || !dependsOnVisitor(compiled, item.id)) continue;
    const was = decide(compiled, item.id, before, requestBefore).kind === 'open';
    const is = decide(compiled, item.id, after, request).kind === 'open';
    if (!was && is) opens.push(item.id);
    if (was && !is) closes.push(item.id);
  }
  return { opens, closes };
}
