/** What stands at the top of a site, in the groups in which people look for it. */
import { capital } from '../english';
import type { Item } from './item';
import { ITEM_KINDS, type ItemKind, KINDS, mayHold } from './kinds';
import type { Outline } from './outline';
import { sharedIn } from './shared';

export interface ItemGroup {
  readonly kind: ItemKind;
  /** "Menus", "Posts: Night logs". */
  readonly title: string;
  /** Whether others that are no parts stand below its items. */
  readonly tree: boolean;
  readonly items: readonly Item[];
}

const isTree = (kind: ItemKind): boolean =>
  ITEM_KINDS.some((other) => mayHold(kind, other) && !KINDS[other].part && !KINDS[other].byCategory);

/** The groups that hold anything, in the order of the kinds; posts by category, the latest first. */
export const groupsOf = (outline: Outline): readonly ItemGroup[] =>
  ITEM_KINDS.filter((kind) => mayHold('site', kind)).flatMap((kind): ItemGroup[] => {
    // A section that stands at the top stands on many pages.
    const title = kind === 'section' ? 'On many pages' : capital(KINDS[kind].many);
    const tree = isTree(kind);
    if (!KINDS[kind].byCategory) {
      const items =
        kind === 'section'
          ? sharedIn(outline)
          : (outline.children.get(outline.root) ?? []).filter((item) => item.kind === kind);
      return items.length > 0 ? [{ kind, title, tree, items }] : [];
    }
    const all = [...outline.items.values()].filter((item) => item.kind === kind);
    const categoryOf = ({ facts }: Item) => facts?.category ?? '';
    return [...new Set(all.map(categoryOf))].sort().map((category) => ({
      kind,
      title: category === '' ? `${title} without a category` : `${title}: ${category}`,
      tree,
      items: all.filter((item) => categoryOf(item) === category).sort(latestFirst),
    }));
  });

/** Days are in order by their letters; to compare them by a language's rules, a browser would have to read these first. */
export function latestFirst(a: Item, b: Item): number {
  const [one, other] = [a.facts?.date ?? '', b.facts?.date ?? ''];
  return one < other ? 1 : one > other ? -1 : 0;
}
