import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { all, inGroup, level, not, signedIn, test } from '../condition';
import { guest } from '../site';
import { conditions, visitors } from '../testing/arbitraries';
import { crew, items, observer, people, request, vocabulary } from '../testing/larkfell';
import {
  both,
  type Columns,
  columnsOf,
  countOf,
  emptyBitset,
  fullBitset,
  placesIn,
  popcount,
  without,
} from '.';

describe('bitsets', () => {
  it('count what they hold', () => {
    fc.assert(
      fc.property(fc.nat(0xffffffff), (word) => {
        expect(popcount(word | 0)).toBe([...word.toString(2)].filter((bit) => bit === '1').length);
      }),
    );
  });

  it('hold everybody and nobody, and no bit beyond', () => {
    for (const size of [0, 1, 31, 32, 33, 64, 100]) {
      expect(countOf(fullBitset(size))).toBe(size);
      expect([...placesIn(fullBitset(size))]).toEqual([...Array(size).keys()]);
      expect(countOf(emptyBitset(size))).toBe(0);
    }
  });

  it('are sets', () => {
    const places = fc.uniqueArray(fc.nat(99), { maxLength: 60 });
    const setOf = (list: readonly number[]) => {
      const bits = emptyBitset(100);
      for (const place of list) bits[place >>> 5] = (bits[place >>> 5] ?? 0) | (1 << (place & 31));
      return bits;
    };
    fc.assert(
      fc.property(places, places, (a, b) => {
        const sorted = (list: readonly number[]) => list.toSorted((x, y) => x - y);
        expect([...placesIn(without(setOf(a), setOf(b)))]).toEqual(
          sorted(a.filter((one) => !b.includes(one))),
        );
        expect([...placesIn(both(setOf(a), setOf(b)))]).toEqual(sorted(a.filter((one) => b.includes(one))));
      }),
    );
  });
});

it('says who gains and who loses between two conditions', () => {
  const names = Object.keys(people);
  const columns = columnsOf(Object.values(people), vocabulary, request);
  const before = columns.select(inGroup(crew));
  const now = columns.select(all(inGroup(crew), not(level('at least', observer))));
  const named = (bits: Uint32Array) => [...placesIn(bits)].map((place) => names[place]);
  expect([before.count, now.count]).toEqual([2, 0]);
  expect(named(without(before.bits, now.bits))).toEqual(['ines', 'wren']);
  expect(named(without(now.bits, before.bits))).toEqual([]);
});

it('works over more people than fit into one block', () => {
  const crowd = Array.from({ length: 100_000 }, (_, place) => (place % 3 === 0 ? people.ines : guest));
  const columns = columnsOf(crowd, vocabulary, request);
  expect(columns.select(all(signedIn, inGroup(crew), level('at least', observer))).count).toBe(33_334);
  expect(columns.select(not(signedIn)).count).toBe(66_666);
  expect(columns.select(all()).count).toBe(100_000);
  expect(columns.bytes()).toBe(3 * 2 * 4 * Math.ceil(100_000 / 32));
});

it('keeps tests about different items apart', () => {
  const columns = columnsOf([people.ines], vocabulary, request);
  const [page, menu] = [items.find(({ kind }) => kind === 'page'), items.find(({ kind }) => kind === 'menu')];
  const isPage = test('item kind', 'is', 'page');
  expect(columns.select(isPage, page ?? null).count).toBe(1);
  expect(columns.select(isPage, menu ?? null).count).toBe(0);
  expect(columns.select(isPage).count).toBe(0);
});

it('are the same made in steps, and of those before where some people are others', () => {
  const crowds = fc.array(visitors, { minLength: 1, maxLength: 70 });
  const others = fc.array(fc.tuple(fc.nat(69), visitors), { maxLength: 6 });
  fc.assert(
    fc.property(
      fc.array(conditions, { minLength: 1, maxLength: 4 }),
      crowds,
      others,
      (asked, crowd, changes) => {
        const selected = (columns: Columns) => asked.map((one) => columns.select(one));
        const ready = columnsOf(crowd, vocabulary, request);
        for (const _ of ready.ready(asked)) expect(ready.size).toBe(crowd.length);
        expect(selected(ready)).toEqual(selected(columnsOf(crowd, vocabulary, request)));
        const bytes = ready.bytes();
        expect(selected(ready)).toHaveLength(asked.length);
        const now = crowd.slice();
        const places = changes.map(([at, visitor]) => {
          now[at % crowd.length] = visitor;
          return at % crowd.length;
        });
        const changed = ready.changed(now, places);
        expect(changed.bytes()).toBe(ready.bytes());
        expect(changed.bytes()).toBeGreaterThanOrEqual(bytes);
        expect(selected(changed)).toEqual(selected(columnsOf(now, vocabulary, request)));
        // What it was made of is as it was.
        expect(selected(ready)).toEqual(selected(columnsOf(crowd, vocabulary, request)));
      },
    ),
    { numRuns: 200 },
  );
});
