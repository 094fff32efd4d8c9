/**
 * Shared sections: written once, and standing on many pages and posts, their hosts. A shared section stands below the site
 * itself; it is in each of its hosts, and what is asked of the item there is asked of the host.
 */
import { asId, type ItemId } from '../ids';
import type { Item, Section } from './item';
import type { Outline } from './outline';
import type { What } from './what';

/** Where on a page: above everything, before its text, beside it, after it, at the foot. */
export const SPOTS = ['top', 'before', 'beside', 'after', 'foot'] as const;
export type Spot = (typeof SPOTS)[number];

/** Where a shared section stands. */
export interface Shared {
  readonly spot: Spot;
  /** Its hosts, in the language in which gates say what they cover: the pages and posts among them. */
  readonly on: What;
  /** Whether it also stands where no item is: on search, lists, signing in and its kin, messages and the missing page. */
  readonly elsewhere: boolean;
}

export interface SharedSection extends Section {
  readonly shared: Shared;
}

export const isShared = (item: Item | undefined): item is SharedSection =>
  item?.kind === 'section' && item.shared !== undefined;

const known = new WeakMap<Outline, readonly SharedSection[]>();

/** The shared sections of a site in the order in which they stand: spot by spot, and by rank within one. */
export function sharedIn(outline: Outline): readonly SharedSection[] {
  const found =
    known.get(outline) ??
    (outline.children.get(outline.root) ?? [])
      .filter(isShared)
      .toSorted((a, b) => SPOTS.indexOf(a.shared.spot) - SPOTS.indexOf(b.shared.spot));
  known.set(outline, found);
  return found;
}

// No id has such a mark in it.
const AT = '@';

/** The id of a shared section on one of its hosts: decided, explained and opened like an item's. */
export const placeId = (section: ItemId, host: ItemId): ItemId => asId(`${section}${AT}${host}`);

/** The shared section and the host of such an id; null for any other. */
export function placeOf(id: ItemId): { readonly section: ItemId; readonly host: ItemId } | null {
  const at = id.indexOf(AT);
  return at < 0 ? null : { section: asId(id.slice(0, at)), host: asId(id.slice(at + 1)) };
}

/** A shared section on one of its hosts as an item of its own: it is called by both. */
export const placedOn = (section: SharedSection, host: Item): SharedSection => ({
  ...section,
  id: placeId(section.id, host.id),
  parent: section.id,
  title: `${section.title} on ${host.title}`,
});

/** The item of an id, or the shared section on one of its hosts. */
export function itemAt({ items }: Outline, id: ItemId): Item | undefined {
  const place = placeOf(id);
  if (place === null) return items.get(id);
  const [section, host] = [items.get(place.section), items.get(place.host)];
  return isShared(section) && host ? placedOn(section, host) : undefined;
}
