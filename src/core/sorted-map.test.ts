import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Kept, SortedMap } from './sorted-map';

interface Named {
  readonly id: string;
  readonly name: string;
}
const kept: Kept<string, Named> = {
  keyOf: ({ id }) => id,
  order: (a, b) => (a.name < b.name ? -1 : a.name > b.name ? 1 : a.id < b.id ? -1 : a.id > b.id ? 1 : 0),
};
const sorted = (all: ReadonlyMap<string, Named>) =>
  [...all.values()].sort(kept.order).map((one): [string, Named] => [one.id, one]);

const named = (ids: number, names: number): fc.Arbitrary<Named> =>
  fc.record({ id: fc.nat(ids).map((n) => `p-${n}`), name: fc.nat(names).map((n) => `N${n}`) });
const change = fc.tuple(named(3000, 40), fc.boolean());

describe('a map in an order', () => {
  it('holds what a plain map holds after the same changes, in order, and none before is changed', () => {
    fc.assert(
      fc.property(
        fc.array(named(3000, 40), { maxLength: 1500, size: 'max' }),
        fc.array(fc.array(change, { maxLength: 30, size: 'max' }), { maxLength: 12 }),
        (start, steps) => {
          const plain = new Map(start.map((one) => [one.id, one]));
          let map = SortedMap.of(plain.values(), kept);
          expect([...map]).toEqual(sorted(plain));
          for (const step of steps) {
            const [was, held] = [map, sorted(plain)];
            for (const [one, stays] of step) {
              if (stays) plain.set(one.id, one);
              else plain.delete(one.id);
            }
            map = map.with(step.map(([one, stays]) => [one.id, stays ? one : null]));
            expect([...map]).toEqual(sorted(plain));
            expect(map.size).toBe(plain.size);
            expect([...map.keys()].every((id) => map.get(id) === plain.get(id))).toBe(true);
            for (const [one] of step) expect(map.get(one.id)).toBe(plain.get(one.id));
            expect([...was]).toEqual(held);
          }
        },
      ),
      { numRuns: 40 },
    );
  });

  it('grows from nothing to thousands, one by one, and back', () => {
    let map = SortedMap.of<string, Named>([], kept);
    const all = Array.from({ length: 2000 }, (_, at) => ({ id: `p-${at}`, name: `N${(at * 7919) % 2000}` }));
    for (const one of all) map = map.with([[one.id, one]]);
    expect([...map]).toEqual(sorted(new Map(all.map((one) => [one.id, one]))));
    for (const { id } of all) map = map.with([[id, null]]);
    expect([map.size, ...map]).toEqual([0]);
    expect(map.with([[all[0]?.id ?? '', all[0] ?? null]]).size).toBe(1);
  });

  it('tells at which places another value stands, or that what stands there has moved', () => {
    const all = Array.from({ length: 3000 }, (_, at) => ({ id: `p-${at}`, name: `N${1000 + at}` }));
    const map = SortedMap.of(all, kept);
    fc.assert(
      fc.property(fc.uniqueArray(fc.nat(2999), { maxLength: 20 }), (places) => {
        const anew = map.with(places.map((at) => [`p-${at}`, { id: `p-${at}`, name: `N${1000 + at}` }]));
        expect(anew.changedSince(map)).toEqual(places.toSorted((a, b) => a - b));
      }),
    );
    expect(map.changedSince(map)).toEqual([]);
    expect(map.with([['p-7', null]]).changedSince(map)).toBeNull();
    expect(map.with([['p-7', { id: 'p-7', name: 'Z' }]]).changedSince(map)).toBeNull();
    const exchanged = map.with([
      ['p-7', { id: 'p-7', name: 'N1008' }],
      ['p-8', { id: 'p-8', name: 'N1007' }],
    ]);
    expect(exchanged.changedSince(map)).toBeNull();
  });
});
