/** Where an item stands in a course, as far as it is known. */
import type { ItemId } from '../ids';
import type { Item } from './item';

/** The course that an item is, or is in; null for what is in none. */
export const courseOf = (item: Item | null): ItemId | null =>
  item?.kind === 'course' ? item.id : (item?.within?.course ?? null);

/** The unit that an item is, or is in; null for what is in none. */
export const unitOf = (item: Item | null): ItemId | null =>
  item?.kind === 'unit' ? item.id : (item?.within?.unit ?? null);

/**
 * What comes before an item in its unit: the id of an activity, for an activity and what is in it; or that there is nothing
 * before it, as of the first one and of a unit or a course as a whole. Null for what is in no course.
 */
export function beforeOf(item: Item | null): { readonly id: ItemId | null } | null {
  if (item?.kind === 'course') return { id: null };
  return item?.within ? { id: item.within.before } : null;
}
