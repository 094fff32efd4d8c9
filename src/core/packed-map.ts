/**
 * A map of very many values that are kept as lines of text, in an order, and read when they are asked for. Lines stand in
 * many short lists, each of them one string; a changed copy of the map shares those in which nothing changed. An object of a
 * dozen fields takes as much as eight such lines, and whoever collects garbage has to go through it.
 */
import { drained } from './drained';
import { firstNotBefore } from './first-not-before';
import { BREAK, linesOf, textOf } from './merged-runs';
import { hashOf, isCrowded, placeIn, type TextIndex, textIndex, withEntry, withoutEntry } from './text-index';

/** How values are written as lines, and read. */
export interface Packing<K extends string, V> {
  /** What the line of a key begins with, and no other's. */
  readonly headOf: (key: K) => string;
  /** The key of the line that begins at a place of a text. */
  readonly keyAt: (text: string, from: number) => K;
  readonly keyOf: (value: V) => K;
  /** The order of two lines; it has to tell any two apart. */
  readonly order: (a: string, b: string) => number;
  readonly read: (line: string) => V;
}

/** How many lines stand in a list, about: one list is copied for each change. */
export const LINES_IN_A_LIST = 64;
/** What is read is kept of so many lists; on a map of more, that of the first is forgotten for that of the next. */
const KEPT_LISTS = 1600;
/** From how large a part on everything is made anew, which is faster then. */
const MUCH = 1 / 16;
/** How many times as many numbers as lists there may be before they are counted anew. */
const GAPS = 4;

/** Some lines that follow one another. */
class List<K, V> {
  /** What was read of it so far, by key. */
  found: Map<K, V> | null = null;
  /** All of it in order, if that was read. */
  all: readonly V[] | null = null;

  constructor(
    /** What the index calls it. */
    readonly number: number,
    readonly text: string,
    readonly size: number,
  ) {}

  get lines(): string[] {
    return linesOf(this.text);
  }

  get last(): string {
    return this.text.slice(this.text.lastIndexOf(BREAK) + 1);
  }

  /** The line that begins so. */
  line(head: string): string | undefined {
    const from = this.text.indexOf(BREAK + head) + 1;
    if (from === 0) return undefined;
    const to = this.text.indexOf(BREAK, from);
    return to < 0 ? this.text.slice(from) : this.text.slice(from, to);
  }
}

/** Some values that follow one another. Where nothing changed between two maps, both have the same part. */
export interface Part<V> {
  readonly of: object;
  readonly size: number;
  /** Its lines; where they can't say what is looked for, nothing of it needs to be read. */
  readonly text: string;
  readonly values: () => readonly V[];
}

export class PackedMap<K extends string, V> implements ReadonlyMap<K, V> {
  private constructor(
    private readonly packing: Packing<K, V>,
    private readonly lists: readonly List<K, V>[],
    /** The same, by what the index calls them. */
    private readonly byNumber: readonly (List<K, V> | undefined)[],
    private readonly index: TextIndex,
    readonly size: number,
    /** Those of which something that was read is kept, the longest known first. */
    private readonly keeping: Set<List<K, V>>,
  ) {}

  /** Of texts that follow one another in order: lines, each with a break before it. */
  static of<K extends string, V>(texts: Iterable<string>, packing: Packing<K, V>): PackedMap<K, V> {
    return drained(PackedMap.steps(texts, packing));
  }

  /** The same, made a text at a time. */
  static *steps<K extends string, V>(
    texts: Iterable<string>,
    packing: Packing<K, V>,
  ): Generator<void, PackedMap<K, V>> {
    const lists: List<K, V>[] = [];
    const hashes: number[] = [];
    const numbers: number[] = [];
    for (const text of texts) {
      const before = hashes.length;
      for (let from = text.indexOf(BREAK) + 1; from > 0; from = text.indexOf(BREAK, from) + 1) {
        hashes.push(hashOf(packing.keyAt(text, from)));
        numbers.push(lists.length);
      }
      lists.push(new List(lists.length, text, hashes.length - before));
      yield;
    }
    return new PackedMap(packing, lists, lists, textIndex(hashes, numbers), hashes.length, new Set());
  }

  /** Of lines in any order. */
  static ofLines<K extends string, V>(lines: Iterable<string>, packing: Packing<K, V>): PackedMap<K, V> {
    const sorted = [...lines].sort(packing.order);
    const texts: string[] = [];
    for (let at = 0; at < sorted.length; at += LINES_IN_A_LIST)
      texts.push(textOf(sorted.slice(at, at + LINES_IN_A_LIST)));
    return PackedMap.of(texts, packing);
  }

  get(key: K): V | undefined {
    const list = this.#listOf(key);
    const known = list?.found?.get(key);
    if (!list || known !== undefined) return known;
    const line = list.line(this.packing.headOf(key));
    if (line === undefined) return undefined;
    const value = this.packing.read(line);
    list.found ??= new Map();
    list.found.set(key, value);
    this.#keep(list);
    return value;
  }

  /** As it is kept. */
  line(key: K): string | undefined {
    return this.#listOf(key)?.line(this.packing.headOf(key));
  }

  has(key: K): boolean {
    return this.#listOf(key) !== undefined;
  }

  #listOf(key: K): List<K, V> | undefined {
    return listIn(this.byNumber, this.index, key, this.packing.headOf(key));
  }

  /** What stands at places, counted in order from 0; places in order too. */
  *at(places: Iterable<number>): Generator<V> {
    let [at, from] = [0, 0];
    let lines: readonly string[] | null = null;
    for (const place of places) {
      for (
        let size = this.lists[at]?.size;
        size !== undefined && place >= from + size;
        size = this.lists[at]?.size
      ) {
        from += size;
        at += 1;
        lines = null;
      }
      lines ??= this.lists[at]?.lines ?? [];
      const line = lines[place - from];
      const value = line === undefined ? undefined : this.get(this.packing.keyAt(line, 0));
      if (value !== undefined) yield value;
    }
  }

  /** At which place something stands. */
  placeOf(key: K): number | undefined {
    const list = this.#listOf(key);
    if (!list) return undefined;
    const head = this.packing.headOf(key);
    const before = this.lists.slice(0, this.lists.indexOf(list)).reduce((sum, { size }) => sum + size, 0);
    return before + list.lines.findIndex((line) => line.startsWith(head));
  }

  /** The same, of which everything is read anew and in another way. */
  readBy(read: Packing<K, V>['read']): PackedMap<K, V> {
    const anew = this.byNumber.map((list) => list && new List<K, V>(list.number, list.text, list.size));
    const lists = this.lists.flatMap(({ number }) => anew[number] ?? []);
    return new PackedMap({ ...this.packing, read }, lists, anew, this.index, this.size, new Set());
  }

  /**
   * The same with some lines as they are now, and without those that are null; read in another way from now on, which reads
   * what did not change as it was read before.
   */
  with(
    changes: Iterable<readonly [K, string | null]>,
    read: Packing<K, V>['read'] = this.packing.read,
  ): PackedMap<K, V> {
    const changed = new Map(changes);
    const packing = { ...this.packing, read };
    if (changed.size > this.size * MUCH) return PackedMap.ofLines(this.#linesAfter(changed), packing);
    const lists = this.lists.slice();
    const byNumber = this.byNumber.slice();
    const index = this.index.slice();
    let { size } = this;
    const put = (list: List<K, V>, key: K, lines: readonly string[]): void => {
      const { number, found } = list;
      const at = lists.indexOf(list);
      byNumber[number] = undefined;
      this.keeping.delete(list);
      if (lines.length === 0) {
        lists.splice(at, 1);
        return;
      }
      const isLong = lines.length > 2 * LINES_IN_A_LIST;
      const own = isLong ? lines.slice(0, LINES_IN_A_LIST) : lines;
      const changedList = new List<K, V>(number, textOf(own), own.length);
      byNumber[number] = changedList;
      if (!isLong) {
        lists[at] = changedList;
        if (!found) return;
        changedList.found = new Map(found);
        changedList.found.delete(key);
        keep(this.keeping, changedList);
        return;
      }
      const rest = lines.slice(LINES_IN_A_LIST);
      const other = new List<K, V>(byNumber.length, textOf(rest), rest.length);
      byNumber.push(other);
      lists.splice(at, 1, changedList, other);
      for (const line of rest) {
        const moved = packing.keyAt(line, 0);
        withoutEntry(index, moved, number);
        withEntry(index, moved, other.number);
      }
    };
    for (const [key, after] of changed) {
      const head = packing.headOf(key);
      const list = listIn(byNumber, index, key, head);
      if (list) {
        const { lines } = list;
        const at = lines.findIndex((line) => line.startsWith(head));
        if (after !== null && packing.order(lines[at] as string, after) === 0) {
          put(list, key, lines.with(at, after));
          continue;
        }
        withoutEntry(index, key, list.number);
        put(list, key, lines.toSpliced(at, 1));
        size -= 1;
      }
      if (after === null) continue;
      const into =
        lists[
          Math.min(
            firstNotBefore(lists, ({ last }) => packing.order(last, after)),
            lists.length - 1,
          )
        ];
      // Where there is none, there was nothing, or nothing is left.
      if (!into) return PackedMap.ofLines(this.#linesAfter(changed), packing);
      const { lines } = into;
      withEntry(index, key, into.number);
      put(
        into,
        key,
        lines.toSpliced(
          firstNotBefore(lines, (line) => packing.order(line, after)),
          0,
          after,
        ),
      );
      size += 1;
    }
    return isCrowded(index, size) || byNumber.length > GAPS * lists.length
      ? PackedMap.of(
          lists.map(({ text }) => text),
          packing,
        )
      : new PackedMap(packing, lists, byNumber, index, size, this.keeping);
  }

  *#linesAfter(changed: ReadonlyMap<K, string | null>): Generator<string> {
    for (const { lines } of this.lists)
      for (const line of lines) if (!changed.has(this.packing.keyAt(line, 0))) yield line;
    for (const line of changed.values()) if (line !== null) yield line;
  }

  *values(): MapIterator<V> {
    for (const list of this.lists) yield* this.#valuesOf(list);
  }

  /** The same of all that were made of one another by changes. */
  get lineage(): object {
    return this.keeping;
  }

  /** Everything in order, in parts. */
  parts(): readonly Part<V>[] {
    return this.lists.map((of) => ({ of, size: of.size, text: of.text, values: () => this.#valuesOf(of) }));
  }

  *keys(): MapIterator<K> {
    for (const { lines } of this.lists) for (const line of lines) yield this.packing.keyAt(line, 0);
  }

  *entries(): MapIterator<[K, V]> {
    for (const list of this.lists) {
      const values = this.#valuesOf(list);
      for (const [at, line] of list.lines.entries()) yield [this.packing.keyAt(line, 0), values[at] as V];
    }
  }

  [Symbol.iterator](): MapIterator<[K, V]> {
    return this.entries();
  }

  forEach(work: (value: V, key: K, map: ReadonlyMap<K, V>) => void): void {
    for (const [key, value] of this) work(value, key, this);
  }

  #valuesOf(list: List<K, V>): readonly V[] {
    if (list.all) return list.all;
    const { keyAt, keyOf, read } = this.packing;
    const { found, lines } = list;
    // Of more than is kept, nothing is kept by going through it.
    if (this.lists.length > KEPT_LISTS) return lines.map((line) => found?.get(keyAt(line, 0)) ?? read(line));
    const all = new Map(
      lines.map((line): [K, V] => {
        const value = found?.get(keyAt(line, 0)) ?? read(line);
        // A key cut out of the text would keep all of it for as long as it is kept.
        return [keyOf(value), value];
      }),
    );
    list.found = all;
    list.all = [...all.values()];
    this.#keep(list);
    return list.all;
  }

  #keep(list: List<K, V>): void {
    keep(this.keeping, list);
  }
}

/** Notes that something of a list is kept, and forgets what is kept of the one that is known longest. */
function keep<K, V>(keeping: Set<List<K, V>>, list: List<K, V>): void {
  if (keeping.has(list)) return;
  keeping.add(list);
  const [first] = keeping;
  if (keeping.size <= KEPT_LISTS || !first) return;
  keeping.delete(first);
  first.found = null;
  first.all = null;
}

/** The list in which the line of a key is. */
function listIn<K extends string, V>(
  byNumber: readonly (List<K, V> | undefined)[],
  index: TextIndex,
  key: K,
  head: string,
): List<K, V> | undefined {
  let found: List<K, V> | undefined;
  placeIn(index, key, (number) => {
    const list = byNumber[number];
    if (!list || !(list.found?.has(key) || list.line(head) !== undefined)) return false;
    found = list;
    return true;
  });
  return found;
}
