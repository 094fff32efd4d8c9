/**
 * The outline: the site's items as a tree that can be looked up by id, by address and downwards. Immutable;
 * made anew when the site changes.
 */
import { capital } from '../english';
import type { ItemId } from '../ids';
import type { Address } from './address';
import {
  type Activity,
  type Addressed,
  type Item,
  isAddressed,
  isOpenable,
  type Section,
  type Unit,
  type Within,
} from './item';
import { KINDS, mayHold, OPENABLE_KINDS, oneOfKinds, parentsOf } from './kinds';
import type { ItemNames, Named } from './vocabulary';

export interface Outline {
  readonly root: ItemId;
  readonly items: ReadonlyMap<ItemId, Item>;
  /** Children in rank order. Every item has an entry. */
  readonly children: ReadonlyMap<ItemId, readonly Item[]>;
  /** Whatever has an address that its author chose. */
  readonly addressed: ReadonlyMap<Address, Addressed>;
}

/** What is wrong with a list of items that is to become a site, in words that say which item and why. */
export interface OutlineProblem {
  readonly item: ItemId;
  readonly message: string;
}

/** Makes the outline, or lists every reason why these items are not a site. */
export function outlineOf(list: readonly Item[]): Outline | { readonly problems: readonly OutlineProblem[] } {
  const problems: OutlineProblem[] = [];
  const complain = (item: Item, message: string) => problems.push({ item: item.id, message });
  const items = new Map<ItemId, Item>();
  const addressed = new Map<Address, Addressed>();
  for (const item of list) {
    if (items.has(item.id)) complain(item, `Two items have the id "${item.id}". Give one of them another.`);
    items.set(item.id, item);
    if (!isAddressed(item)) continue;
    const taken = addressed.get(item.address);
    if (taken)
      complain(item, `"${item.title}" and "${taken.title}" share the address ${item.address}. Change one.`);
    addressed.set(item.address, item);
  }
  const children = new Map<ItemId, Item[]>([...items.keys()].map((id) => [id, []]));
  for (const item of items.values()) {
    const parent = item.parent === null ? null : items.get(item.parent);
    if (item.kind === 'site' ? item.parent !== null : !parent || !mayHold(parent.kind, item.kind)) {
      const { one } = KINDS[item.kind];
      const places = oneOfKinds(parentsOf(item.kind));
      complain(
        item,
        item.parent !== null && !parent
          ? `"${item.title}" stands below "${item.parent}", which is not there. ${capital(one)} belongs below ${places}.`
          : `"${item.title}" can't stand where it stands: ${one} belongs below ${places}.`,
      );
    }
    if (item.kind === 'section' && (item.shared !== undefined) !== (parent?.kind === 'site')) {
      complain(
        item,
        item.shared
          ? `"${item.title}" is shared, so it belongs below the site itself and not in "${parent?.title}".`
          : `"${item.title}" stands below the site itself: say at which spot, and on what.`,
      );
    }
    if (item.parent !== null) children.get(item.parent)?.push(item);
    if (item.kind === 'link' && item.target.kind === 'item' && !isOpenable(items.get(item.target.item))) {
      complain(
        item,
        `The link "${item.title}" leads to nothing that can be opened. Choose ${oneOfKinds(OPENABLE_KINDS)} for it.`,
      );
    }
  }
  for (const siblings of children.values()) siblings.sort((a, b) => a.rank - b.rank);
  const sites = list.filter((item) => item.kind === 'site');
  const root = sites[0];
  if (!root || sites.length > 1) {
    return {
      problems: [
        { item: (sites[1] ?? list[0])?.id ?? ('' as ItemId), message: 'A site has exactly one root.' },
      ],
    };
  }
  placeInCourses(items, children, addressed);
  const outline = { root: root.id, items, children, addressed };
  if (problems.length === 0) {
    const reached = new Set(below(outline, root.id));
    for (const item of items.values()) {
      if (!reached.has(item)) complain(item, `"${item.title}" stands below itself. Move it elsewhere.`);
    }
  }
  return problems.length > 0 ? { problems } : outline;
}

/** Gives what is in courses its place there: the same items, but for that. */
function placeInCourses(
  items: Map<ItemId, Item>,
  children: Map<ItemId, Item[]>,
  addressed: Map<Address, Addressed>,
): void {
  /** Places what stands below something: what is in it where it is itself, but for units and the activities of a unit. */
  const placeBelow = (above: ItemId, within: Within): void => {
    const siblings = children.get(above) ?? [];
    let before: ItemId | null = null;
    for (const [at, item] of siblings.entries()) {
      const placed: Item = { ...item, within: item.kind === 'activity' ? { ...within, before } : within };
      siblings[at] = placed;
      items.set(placed.id, placed);
      if (isAddressed(placed)) addressed.set(placed.address, placed);
      if (placed.kind === 'activity' && placed.published) before = placed.id;
      placeBelow(
        placed.id,
        placed.kind === 'unit' ? { ...within, unit: placed.id } : (placed.within ?? within),
      );
    }
  };
  for (const { kind, id } of [...items.values()])
    if (kind === 'course') placeBelow(id, { course: id, unit: null, before: null });
}

/** What a site is called: the title of its root. */
export const siteTitleOf = ({ items, root }: Outline): string => items.get(root)?.title ?? '';

/** How deep items can stand in one another: far deeper than anybody finds their way. */
export const DEEPEST_ITEM = 100;

/** The first item that stands too deep, or null. */
export function tooDeepIn(outline: Outline): Item | null {
  let level: readonly Item[] = [outline.items.get(outline.root) as Item];
  for (let depth = 0; depth <= DEEPEST_ITEM; depth++)
    level = level.flatMap(({ id }) => outline.children.get(id) ?? []);
  return level[0] ?? null;
}

/** An item and everything beneath it, top down, in rank order. At once: a generator takes three times as long. */
export function below(outline: Outline, id: ItemId): readonly Item[] {
  const items: Item[] = [];
  const top = outline.items.get(id);
  // A list of its own instead of calls in calls, which would go as deep as the items do.
  const waiting = top ? [top] : [];
  for (let next = waiting.pop(); next !== undefined; next = waiting.pop()) {
    items.push(next);
    const children = outline.children.get(next.id) ?? [];
    for (let at = children.length - 1; at >= 0; at--) waiting.push(children[at] as Item);
  }
  return items;
}

/** The same as ids. */
export const idsBelow = (outline: Outline, id: ItemId): readonly ItemId[] =>
  below(outline, id).map((item) => item.id);

/**
 * What an item is *in*: its contents are closed when it is. A link is in the link or menu above it, a section in its page
 * or post, a file in whatever it belongs to. A page below a page is a neighbour with an address of its own, so it is in
 * nothing, and neither is what stands below the site itself.
 */
export function containerOf(outline: Outline, item: Item): Item | null {
  if (item.parent === null || !KINDS[item.kind].contained) return null;
  const parent = outline.items.get(item.parent);
  return parent && parent.kind !== 'site' ? parent : null;
}

/** The page, post, course or activity that an item is part of: itself, or what it is in. */
export function pageOf(outline: Outline, item: Item): Addressed | null {
  if (isAddressed(item)) return item;
  const container = containerOf(outline, item);
  return container === null ? null : pageOf(outline, container);
}

/** What is opened to change an item: itself, or what it is in; a file is changed by itself wherever it belongs to. */
export function changedIn(outline: Outline, item: Item): Item {
  const container = item.kind === 'file' ? null : containerOf(outline, item);
  return container === null ? item : changedIn(outline, container);
}

/** Whether something stands below an item that is not part of it: pages below a page, links below a link. */
export const hasBelow = (outline: Outline, id: ItemId): boolean =>
  (outline.children.get(id) ?? []).some(({ kind }) => !KINDS[kind].part);

/** The sections of a page or post, in order. */
export const sectionsOf = (outline: Outline, id: ItemId): readonly Section[] =>
  (outline.children.get(id) ?? []).filter((item) => item.kind === 'section');

const kept = {
  unit: new WeakMap<readonly Item[], readonly Unit[]>(),
  activity: new WeakMap<readonly Item[], readonly Activity[]>(),
};

/** The units of a course, in order. */
export const unitsOf = ({ children }: Outline, course: ItemId): readonly Unit[] =>
  ofKind(children.get(course), kept.unit, (item) => item.kind === 'unit');

/** The activities of a unit, in order. */
export const activitiesOf = ({ children }: Outline, unit: ItemId): readonly Activity[] =>
  ofKind(children.get(unit), kept.activity, (item) => item.kind === 'activity');

/** Those of a kind among children: found once, for they are asked for with every page of a course. */
function ofKind<T extends Item>(
  children: readonly Item[] | undefined,
  known: WeakMap<readonly Item[], readonly T[]>,
  is: (item: Item) => item is T,
): readonly T[] {
  if (!children) return [];
  const found = known.get(children) ?? children.filter(is);
  known.set(children, found);
  return found;
}

/** The names that courses, units and activities have in conditions: their titles. */
export function itemNamesIn(outline: Outline): ItemNames {
  const names = {
    courses: [] as Named<ItemId>[],
    units: [] as Named<ItemId>[],
    activities: [] as Named<ItemId>[],
  };
  for (const { kind, id, title } of below(outline, outline.root)) {
    if (kind === 'course') names.courses.push({ id, name: title });
    else if (kind === 'unit') names.units.push({ id, name: title });
    else if (kind === 'activity') names.activities.push({ id, name: title });
  }
  return names;
}
