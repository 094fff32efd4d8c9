/** When the areas of a site were last opened by one of their people: the day, and not who it was. */
import { areasIn, type CompiledPolicy, type GroupId, groupsAt, type ItemId, type PersonId } from '@/core';
import type { SiteState } from './site-state';

const known = new WeakMap<CompiledPolicy, ReadonlyMap<ItemId, GroupId>>();

/** The groups that have areas, by the page at the top of each. */
function groupsOf({ compiled }: SiteState['live']): ReadonlyMap<ItemId, GroupId> {
  const found =
    known.get(compiled) ?? new Map(areasIn(compiled.policy).map(({ page, group }) => [page, group]));
  known.set(compiled, found);
  return found;
}

/** The area in which somebody is who opens an item and has it; null where there is none. */
export function areaVisited(state: SiteState, person: PersonId, item: ItemId, today: string): ItemId | null {
  const groups = groupsOf(state.live);
  if (groups.size === 0) return null;
  const { items } = state.outline;
  for (let at: ItemId | null = item; at !== null; at = items.get(at)?.parent ?? null) {
    const group = groups.get(at);
    if (group === undefined) continue;
    const facts = state.people.get(person)?.facts;
    return facts && groupsAt(facts, today)?.includes(group) ? at : null;
  }
  return null;
}
