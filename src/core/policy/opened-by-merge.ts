/**
 * What two drafts brought together would open though each of them keeps it closed: one took away a gate that the other
 * relied on, or both let by others at two gates over one item. Asked of the gates, so that it holds for every visitor there
 * can be; an item may be named that in truth nobody gains.
 */
import { expanded, keyOf } from '../condition';
import type { Item } from '../site';
import type { CompiledPolicy } from './compile';

/** The items, in the order of the outline, at which a merge asks for less than each of its sides. */
export function openedByMerge(
  mine: CompiledPolicy,
  theirs: CompiledPolicy,
  merged: CompiledPolicy,
): readonly Item[] {
  const [my, their, both] = [asksOf(mine), asksOf(theirs), asksOf(merged)];
  return [...merged.outline.items.values()].filter((item) => {
    const asked = both(item);
    const holds = (side: ReadonlySet<string>) => [...side].every((one) => asked.has(one));
    return !holds(my(item)) && !holds(their(item));
  });
}

/**
 * Whether something may open by going from one policy (or site) to another: what asks for as much as before, of the same
 * people, opens to nobody.
 */
export function asksForLess(before: CompiledPolicy, after: CompiledPolicy): (item: Item) => boolean {
  const [was, is] = [asksOf(before), asksOf(after)];
  return (item) => {
    const asked = is(item);
    return [...was(item)].some((one) => !asked.has(one));
  };
}

/** What has to be true of a visitor for an item to open, each a text: where it is asked, and the condition. */
function asksOf({ policy, hurdles }: CompiledPolicy): (item: Item) => ReadonlySet<string> {
  const conditions = new Map(policy.gates.map((gate) => [gate, keyOf(expanded(gate.who, policy.audiences))]));
  return ({ id }) =>
    new Set((hurdles(id) ?? []).map(({ at, gate }) => `${at.id} ${gate && conditions.get(gate)}`));
}
