/** A site as it is after a step over areas. */
import { compile, type Item, itemNamesIn, type Outline, outlineOf, type SiteNames } from '@/core';
import type { AreaStep } from '@/store';
import type { SiteState } from '../running';

/** The part of a site that decisions are made of. */
export interface After {
  readonly outline: Outline;
  readonly names: SiteNames;
  readonly compiled: ReturnType<typeof compile>;
}

/** The items of a site after a step. */
export function itemsAfter({ outline }: SiteState, { items }: Pick<AreaStep, 'items'>): readonly Item[] {
  const after = new Map<string, Item>(outline.items);
  for (const { before, after: is } of items) {
    if (before) after.delete(before.item.id);
    if (is) after.set(is.item.id, is.item);
  }
  return [...after.values()];
}

/** The names of a site after a step; its groups in the order of their names. */
export function namesAfter({ names }: SiteState, { groups }: Pick<AreaStep, 'groups'>): SiteNames {
  const after = new Map(names.groups.map((one) => [one.id, one]));
  for (const { before, after: is } of groups) {
    if (before) after.delete(before.id);
    if (is) after.set(is.id, is);
  }
  const inOrder = [...after.values()].toSorted((a, b) => (a.name < b.name ? -1 : a.name > b.name ? 1 : 0));
  return { ...names, groups: inOrder };
}

/** The site after a step, of which it is known that its items are a site. */
export function siteAfter(state: SiteState, step: Pick<AreaStep, 'items' | 'groups' | 'live'>): After {
  const outline = outlineOf(itemsAfter(state, step));
  if ('problems' in outline) throw new Error(outline.problems[0]?.message);
  const names = { ...namesAfter(state, step), ...itemNamesIn(outline) };
  return { outline, names, compiled: compile(step.live.after, outline, names) };
}
