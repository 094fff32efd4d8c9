/** Where a redirect leads in the end: a visitor who is sent on may be sent on again, or round in a circle. */
import type { ItemId } from '../ids';
import type { RequestFacts, VisitorFacts } from '../site';
import type { CompiledPolicy } from './compile';
import { decide } from './decide';
import { type Decision, open } from './decision';

/** How a way along redirects to items ends, with the items passed. */
export interface Arrival {
  /** Every item that the visitor is sent to, in order, the last one included. */
  readonly path: readonly ItemId[];
  /** What the visitor gets at the last one; `null` when the way comes back to where it was. */
  readonly end: Decision | null;
}

/** Follows the redirects that a visitor meets from an item on. An item that does not redirect is its own arrival. */
export function arrivalFrom(
  compiled: CompiledPolicy,
  item: ItemId,
  visitor: VisitorFacts,
  request: RequestFacts,
): Arrival {
  const path: ItemId[] = [item];
  for (;;) {
    const at = path.at(-1) ?? item;
    const decision = decide(compiled, at, visitor, request);
    if (decision.kind === 'open') return { path, end: open };
    const { turnAway } = decision;
    if (turnAway.kind !== 'redirect' || turnAway.to.kind !== 'item') return { path, end: decision };
    if (path.includes(turnAway.to.item)) return { path: [...path, turnAway.to.item], end: null };
    path.push(turnAway.to.item);
  }
}
