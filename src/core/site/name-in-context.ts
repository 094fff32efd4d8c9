import type { Item } from './item';
import { SECTIONS } from './kinds';
import { containerOf, type Outline } from './outline';

/**
 * What an item is called where nothing around it says what it is in: a section without a name of its own is "text in
 * Keepers’ evening".
 */
export function nameInContext(item: Item, outline: Outline): string {
  if (item.kind !== 'section' || !isUnnamed(item.title, item.type)) return item.title;
  const container = containerOf(outline, item);
  const { name } = SECTIONS[item.type];
  return container === null ? name : `${name} in ${container.title}`;
}

/** Whether a section is called what its type is called, as one is to begin with. */
const isUnnamed = (title: string, type: keyof typeof SECTIONS): boolean =>
  title.trim().toLowerCase() === SECTIONS[type].name.toLowerCase();
