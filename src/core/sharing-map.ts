/**
 * A map of which a changed copy costs about what was changed: it shares everything else with the one before. What is in it
 * is in many small maps, of which a change copies one.
 */

/** How many are in a small map, about, when it is made. */
const IN_A_MAP = 64;
/** How many times as many there may be before everything is made anew, in more of them. */
const CROWDED = 4;

/** In no order. Nothing in it is undefined. */
export class SharingMap<K extends string, V> implements ReadonlyMap<K, V> {
  private constructor(
    private readonly maps: readonly ReadonlyMap<K, V>[],
    readonly size: number,
  ) {}

  static of<K extends string, V>(entries: Iterable<readonly [K, V]>): SharingMap<K, V> {
    const all = entries instanceof Map ? (entries as ReadonlyMap<K, V>) : new Map(entries);
    const maps = Array.from(
      { length: 2 ** Math.ceil(Math.log2(Math.max(1, all.size / IN_A_MAP))) },
      () => new Map<K, V>(),
    );
    for (const [key, value] of all) maps[placeOf(key, maps.length)]?.set(key, value);
    return new SharingMap(maps, all.size);
  }

  get(key: K): V | undefined {
    return this.maps[placeOf(key, this.maps.length)]?.get(key);
  }

  has(key: K): boolean {
    return this.get(key) !== undefined;
  }

  /** The same with some as they are now, and without those that are null. */
  with(changes: Iterable<readonly [K, V | null]>): SharingMap<K, V> {
    const maps = this.maps.slice();
    const copies = new Map<number, Map<K, V>>();
    let { size } = this;
    for (const [key, value] of changes) {
      const place = placeOf(key, maps.length);
      const map = copies.get(place) ?? new Map(maps[place]);
      copies.set(place, map);
      maps[place] = map;
      size -= map.size;
      if (value === null) map.delete(key);
      else map.set(key, value);
      size += map.size;
    }
    if (copies.size === 0) return this;
    const made = new SharingMap(maps, size);
    return size > CROWDED * IN_A_MAP * maps.length ? SharingMap.of(made) : made;
  }

  *entries(): MapIterator<[K, V]> {
    for (const map of this.maps) yield* map;
  }

  *keys(): MapIterator<K> {
    for (const map of this.maps) yield* map.keys();
  }

  *values(): MapIterator<V> {
    for (const map of this.maps) yield* map.values();
  }

  [Symbol.iterator](): MapIterator<[K, V]> {
    return this.entries();
  }

  forEach(work: (value: V, key: K, map: ReadonlyMap<K, V>) => void): void {
    for (const [key, value] of this) work(value, key, this);
  }
}

/** In which of so many maps a key is, their number a power of two; by its last letters, in which keys differ most. */
function placeOf(key: string, of: number): number {
  let hash = key.length;
  for (let at = Math.max(0, key.length - 8); at < key.length; at++)
    hash = Math.imul(hash ^ key.charCodeAt(at), 0x01000193);
  return (hash ^ (hash >>> 15)) & (of - 1);
}
