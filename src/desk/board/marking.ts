/** Rows of the board that are marked, so that something can be done with all of them. */
import type { ItemId } from '@/core';

export interface Marking {
  readonly marked: ReadonlySet<ItemId>;
  /** The row that was marked by itself last: ranges begin there. */
  readonly from: ItemId | null;
}

export const unmarked: Marking = { marked: new Set(), from: null };

/** Marks a row by itself, or takes its mark away. */
export function markOne({ marked }: Marking, item: ItemId): Marking {
  const next = new Set(marked);
  if (!next.delete(item)) next.add(item);
  return { marked: next, from: item };
}

/** Marks every row from the one that was marked last to this one; just this one when that is no longer among the rows. */
export function markRange(marking: Marking, rows: readonly ItemId[], item: ItemId): Marking {
  const [from, to] = [rows.indexOf(marking.from ?? item), rows.indexOf(item)];
  const range = from < 0 ? [item] : rows.slice(Math.min(from, to), Math.max(from, to) + 1);
  return {
    marked: new Set([...marking.marked, ...range]),
    from: from < 0 ? item : marking.from,
  };
}

/** Marks every one of the rows. */
export const markAll = ({ marked, from }: Marking, rows: readonly ItemId[]): Marking => ({
  marked: new Set([...marked, ...rows]),
  from,
});
