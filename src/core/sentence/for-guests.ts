/** What a change of gates is for guests, who are people too: gains and losses, counted as one counts things. */
import { counted, listed } from '../english';
import type { ItemId } from '../ids';
import { containerOf, ITEM_KINDS, type Item, KINDS, type Outline } from '../site';

/** The items at which guests notice a change. */
export interface GuestChange {
  readonly gains: readonly ItemId[];
  readonly loses: readonly ItemId[];
  /** Closed before and now, with something else in its place. */
  readonly sees: readonly ItemId[];
}

/** "lose 11 pages and 4 posts, gain 1 file"; null where guests notice nothing. */
export function describeForGuests({ gains, loses, sees }: GuestChange, outline: Outline): string | null {
  const parts = [
    loses.length > 0 ? `lose ${things(loses, outline)}` : '',
    gains.length > 0 ? `gain ${things(gains, outline)}` : '',
    sees.length > 0 ? `get something else at ${things(sees, outline)}` : '',
  ].filter(Boolean);
  return parts.length === 0 ? null : listed(parts);
}

/** Things by kind. What follows something that is counted as well (parts of a page, links to it) is not counted again. */
function things(ids: readonly ItemId[], outline: Outline): string {
  const all = new Set(ids);
  const follows = (item: Item): boolean => {
    const container = containerOf(outline, item);
    const target = item.kind === 'link' && item.target.kind === 'item' ? item.target.item : null;
    return (container !== null && all.has(container.id)) || (target !== null && all.has(target));
  };
  const there = ids.flatMap((id) => outline.items.get(id) ?? []);
  const gone = ids.length - there.length;
  const own = there.filter((item) => !follows(item));
  return listed([
    ...ITEM_KINDS.flatMap((kind) => {
      const count = own.filter((item) => item.kind === kind).length;
      const one = KINDS[kind].one.replace(/^(?:an?|the) /, '');
      return count === 0 ? [] : [counted(count, one, KINDS[kind].many)];
    }),
    ...(gone > 0 ? [counted(gone, 'thing that is gone', 'things that are gone')] : []),
  ]);
}
