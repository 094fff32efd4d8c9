/** Activities that open one after the other: what would no longer wait for what it waits for. */
import { asksOneBefore, type Item, nameInContext, outlineOf } from '@/core';
import type { SiteState } from '../running';

const MOST_TOLD = 3;

/**
 * Which activities, and which parts that come into another one, would come after another one than now, or after none, where a
 * gate asks for the one before: in words, for a site of these items. That opens them to those who are not done with what they
 * wait for.
 */
export function turnsLost({ live: { compiled } }: SiteState, items: readonly Item[]): readonly string[] {
  const asking = new Set(compiled.policy.gates.filter((gate) => asksOneBefore(gate, compiled.vocabulary)));
  if (asking.size === 0) return [];
  const outline = outlineOf(items);
  if ('problems' in outline) throw new Error('Items that are no site have no order.');
  const lost = [...outline.items.values()].flatMap((item): readonly string[] => {
    const now = compiled.outline.items.get(item.id);
    const waitsFor = now?.within?.before;
    if (!waitsFor || item.within?.before === waitsFor) return [];
    // What stays in an activity comes along with it.
    if (item.kind !== 'activity' && item.parent === now.parent) return [];
    const waits = (compiled.hurdles(item.id) ?? []).some(({ gate }) => gate !== null && asking.has(gate));
    const other = compiled.outline.items.get(waitsFor);
    return waits && other
      ? [`${nameInContext(now, compiled.outline)} would no longer wait for ${other.title}`]
      : [];
  });
  return lost.length > MOST_TOLD
    ? [...lost.slice(0, MOST_TOLD), `${lost.length - MOST_TOLD} more as well`]
    : lost;
}
