/**
 * What selections take of a whole site. Hundreds of gates ask for the same few facts, and many items share a value: each value
 * is judged once, the items that have it are known by their places, and a condition is *and* and *or* on words of bits.
 */
import { addTo, type Bitset, both, emptyBitset, fullBitset, placesIn, without } from '../bitset';
import { type Condition, fold, foldPushed, type Reader, type Test, type Truth, UNKNOWN } from '../condition';
import { FALSE, TRUE } from '../condition/truth';
import type { ItemId } from '../ids';
import type { Item, Outline, Vocabulary } from '../site';
import { judgeOf, readerOf } from './selection';

type Met = ReturnType<Reader>;

/** A fact of every item of a site: the values that there are, and the places of the items that have each. */
interface FactColumn {
  readonly values: readonly Met[];
  /** The places of the items with `values[v]` are `places[starts[v]]` up to `places[starts[v + 1]]`. */
  readonly places: Uint32Array;
  readonly starts: Uint32Array;
}

interface Table {
  readonly items: readonly Item[];
  readonly columns: Map<string, FactColumn>;
}

const known = new WeakMap<Outline, Table>();

function tableOf(outline: Outline): Table {
  const table = known.get(outline) ?? { items: [...outline.items.values()], columns: new Map() };
  known.set(outline, table);
  return table;
}

/** Puts items in the order of what is read of them. */
function columnOf(items: readonly Item[], read: (item: Item) => Met): FactColumn {
  const values: Met[] = [];
  const numbers = new Map<unknown, number>();
  const lists = new Map<string, number>();
  const numberOf = (met: Met): number => {
    const isList = typeof met === 'object' && met !== null;
    const found = isList ? lists.get(JSON.stringify(met)) : numbers.get(met);
    if (found !== undefined) return found;
    if (isList) lists.set(JSON.stringify(met), values.length);
    else numbers.set(met, values.length);
    return values.push(met) - 1;
  };
  const of = Uint32Array.from(items, (item) => numberOf(read(item)));
  const starts = new Uint32Array(values.length + 1);
  for (const value of of) starts[value + 1] = (starts[value + 1] as number) + 1;
  for (let at = 1; at < starts.length; at++) starts[at] = (starts[at] as number) + (starts[at - 1] as number);
  const next = starts.slice();
  const places = new Uint32Array(items.length);
  for (const [place, value] of of.entries()) {
    places[next[value] as number] = place;
    next[value] = (next[value] as number) + 1;
  }
  return { values, places, starts };
}

/** The items of a site that a selection takes, in the site's order; those in doubt as well, or not. */
export function selectedIn(
  where: Condition,
  outline: Outline,
  vocabulary: Vocabulary,
  doubt: boolean,
): readonly ItemId[] {
  const { items, columns } = tableOf(outline);
  const size = items.length;
  const having = (test: Test, holds: (truth: Truth) => boolean): Bitset => {
    const column = columns.get(test.fact) ?? columnOf(items, readerOf(test, vocabulary));
    columns.set(test.fact, column);
    const { values, places, starts } = column;
    const judge = judgeOf(test, vocabulary);
    const takes = new Uint8Array(values.length);
    let count = 0;
    for (let value = 0; value < values.length; value++) {
      if (!holds(judge(values[value] as Met))) continue;
      takes[value] = 1;
      count += (starts[value + 1] as number) - (starts[value] as number);
    }
    // The fewer are put in, or taken out of all of them.
    const most = count * 2 > size;
    const bits = most ? fullBitset(size) : emptyBitset(size);
    for (let value = 0; value < values.length; value++) {
      if ((takes[value] === 1) === most) continue;
      const end = starts[value + 1] as number;
      for (let at = starts[value] as number; at < end; at++) {
        const place = places[at] as number;
        bits[place >>> 5] = (bits[place >>> 5] as number) ^ (1 << (place & 31));
      }
    }
    return bits;
  };
  const every = (parts: readonly Bitset[]): Bitset => parts.reduce(both, fullBitset(size));
  const some = (parts: readonly Bitset[]): Bitset => {
    const all = emptyBitset(size);
    for (const part of parts) addTo(all, part);
    return all;
  };
  const none = () => emptyBitset(size);
  const taken = doubt
    ? fold<Bitset>(where, {
        group: (parts, { kind }) => (kind === 'all' ? every(parts) : some(parts)),
        not: (part) => without(fullBitset(size), part),
        audience: none,
        test: (test) =>
          having(test, (truth) => truth === TRUE || (truth === UNKNOWN && test.op === 'is not')),
      })
    : foldPushed<Bitset>(where, {
        all: every,
        any: some,
        audience: none,
        test: (test, holds) => having(test, (truth) => truth === (holds ? TRUE : FALSE)),
      });
  const ids: ItemId[] = [];
  for (const place of placesIn(taken)) ids.push((items[place] as Item).id);
  return ids;
}
