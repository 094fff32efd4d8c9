/**
 * A map that is kept in an order of its values, and of which a changed copy costs about what was changed. What is looked up
 * by its key is found in a map that shares; what is gone through in order stands in many short lists, of which a change
 * copies one.
 */
import { SharingMap } from './sharing-map';

/** What is kept: by what, and in which order. The order has to tell any two values apart. */
export interface Kept<K extends string, V> {
  readonly keyOf: (value: V) => K;
  readonly order: (a: V, b: V) => number;
}

/** How many stand in a list, about: one is copied for each change. */
const IN_A_LIST = 256;
/** From how large a part on everything is made anew, which is faster then. */
const MUCH = 1 / 16;

export class SortedMap<K extends string, V> implements ReadonlyMap<K, V> {
  private constructor(
    private readonly kept: Kept<K, V>,
    private readonly lists: readonly (readonly V[])[],
    private readonly byKey: SharingMap<K, V>,
  ) {}

  static of<K extends string, V>(values: Iterable<V>, kept: Kept<K, V>): SortedMap<K, V> {
    const all = [...values].sort(kept.order);
    const lists: V[][] = [];
    for (let at = 0; at < all.length; at += IN_A_LIST) lists.push(all.slice(at, at + IN_A_LIST));
    return new SortedMap(kept, lists, SharingMap.of(all.map((one) => [kept.keyOf(one), one])));
  }

  get size(): number {
    return this.byKey.size;
  }

  get(key: K): V | undefined {
    return this.byKey.get(key);
  }

  has(key: K): boolean {
    return this.byKey.has(key);
  }

  /** The same with some as they are now, and without those that are null. */
  with(changes: Iterable<readonly [K, V | null]>): SortedMap<K, V> {
    const changed = new Map(changes);
    if (changed.size === 0) return this;
    if (changed.size > this.size * MUCH) return SortedMap.of(this.#after(changed), this.kept);
    const lists = this.lists.slice();
    /** Those that were copied already, and may be written to. */
    const copies = new Set<readonly V[]>();
    const listAt = (at: number): V[] => {
      const list = lists[at] ?? [];
      if (copies.has(list)) return list as V[];
      const copy = list.slice();
      copies.add(copy);
      lists[at] = copy;
      return copy;
    };
    for (const [key, after] of changed) {
      const before = this.get(key);
      const stays = before !== undefined && after !== null && this.kept.order(before, after) === 0;
      if (before !== undefined) {
        const at = this.#listFor(lists, before);
        const list = listAt(at);
        const index = firstNotBefore(list, before, this.kept.order);
        if (stays) list[index] = after;
        else list.splice(index, 1);
        if (list.length === 0) lists.splice(at, 1);
      }
      if (after !== null && !stays) {
        const at = this.#listFor(lists, after);
        const list = listAt(at);
        list.splice(firstNotBefore(list, after, this.kept.order), 0, after);
        if (list.length > 2 * IN_A_LIST) lists.splice(at, 1, list.slice(0, IN_A_LIST), list.slice(IN_A_LIST));
      }
    }
    return new SortedMap(this.kept, lists, this.byKey.with(changed));
  }

  /**
   * The places, counted in order, at which another value stands than stood in one before; null where what stands at places
   * has moved, so that there is nothing to compare. Lists that both share are not gone through.
   */
  changedSince(before: SortedMap<K, V>): readonly number[] | null {
    if (before.size !== this.size || before.lists.length !== this.lists.length) return null;
    const places: number[] = [];
    let from = 0;
    for (const [at, list] of this.lists.entries()) {
      const was = before.lists[at];
      if (was?.length !== list.length) return null;
      if (was !== list)
        for (const [index, value] of list.entries()) {
          const one = was[index] as V;
          if (one === value) continue;
          if (this.kept.keyOf(one) !== this.kept.keyOf(value)) return null;
          places.push(from + index);
        }
      from += list.length;
    }
    return places;
  }

  /** In which list something stands, or would: the first that does not end before it, or the last. */
  #listFor(lists: readonly (readonly V[])[], value: V): number {
    let [from, to] = [0, Math.max(0, lists.length - 1)];
    while (from < to) {
      const middle = (from + to) >>> 1;
      if (this.kept.order(lists[middle]?.at(-1) as V, value) < 0) from = middle + 1;
      else to = middle;
    }
    return from;
  }

  *#after(changed: ReadonlyMap<K, V | null>): Generator<V> {
    for (const value of this.values()) if (!changed.has(this.kept.keyOf(value))) yield value;
    for (const value of changed.values()) if (value !== null) yield value;
  }

  *values(): MapIterator<V> {
    for (const list of this.lists) yield* list;
  }

  *keys(): MapIterator<K> {
    for (const value of this.values()) yield this.kept.keyOf(value);
  }

  *entries(): MapIterator<[K, V]> {
    for (const value of this.values()) yield [this.kept.keyOf(value), value];
  }

  [Symbol.iterator](): MapIterator<[K, V]> {
    return this.entries();
  }

  forEach(work: (value: V, key: K, map: ReadonlyMap<K, V>) => void): void {
    for (const [key, value] of this) work(value, key, this);
  }
}

/** The first place in a list at which nothing stands that comes before a value. */
function firstNotBefore<V>(list: readonly V[], value: V, order: (a: V, b: V) => number): number {
  let [from, to] = [0, list.length];
  while (from < to) {
    const middle = (from + to) >>> 1;
    if (order(list[middle] as V, value) < 0) from = middle + 1;
    else to = middle;
  }
  return from;
}
