import type { ItemId } from '../ids';
import { same } from '../same';
import { type Item, isAddressed } from './item';
import type { Outline } from './outline';

/**
 * The same outline with other items in the place of some, made of what there was; null where one of them stands elsewhere than
 * before, or is new, or changes what comes before others in a course: then it is made anew of all items.
 */
export function outlineWith(outline: Outline, changed: readonly Item[]): Outline | null {
  const items = new Map(outline.items);
  const children = new Map(outline.children);
  const addressed = new Map(outline.addressed);
  const parents = new Set<ItemId>();
  for (const item of changed) {
    const before = items.get(item.id);
    if (!before || !standsAsBefore(before, item)) return null;
    const placed: Item = before.within ? { ...item, within: before.within } : item;
    items.set(placed.id, placed);
    if (isAddressed(placed)) addressed.set(placed.address, placed);
    if (placed.parent !== null) parents.add(placed.parent);
  }
  for (const parent of parents)
    children.set(
      parent,
      (children.get(parent) ?? []).map(({ id }) => items.get(id) as Item),
    );
  return { root: outline.root, items, children, addressed };
}

/** Whether an item is to an outline what it was before: all of it that differs is how it is called and what it is about. */
export const standsAsBefore = (before: Item, after: Item): boolean =>
  same(structureOf(before), structureOf(after)) &&
  (before.within === undefined || before.published === after.published);

const structureOf = ({ title: _, facts: __, within: ___, published: ____, ...rest }: Item): unknown => rest;
