import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { LINES_IN_A_LIST, PackedMap, type Packing } from './packed-map';

interface Named {
  readonly id: string;
  readonly name: string;
  readonly says: number;
}
const byLetters = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);
const nameIn = (line: string): string => (JSON.parse(line) as [string, string])[1];
const idIn = (text: string, from: number): string => text.slice(from + 2, text.indexOf('"', from + 2));
const packing: Packing<string, Named> = {
  headOf: (id) => `["${id}",`,
  keyAt: idIn,
  keyOf: ({ id }) => id,
  order: (a, b) => byLetters(nameIn(a), nameIn(b)) || byLetters(idIn(a, 0), idIn(b, 0)),
  read: (line) => {
    const [id, name, says] = JSON.parse(line) as [string, string, number];
    return { id, name, says };
  },
};
const packed = ({ id, name, says }: Named): string => JSON.stringify([id, name, says]);
const mapOf = (all: Iterable<Named>) => PackedMap.ofLines([...all].map(packed), packing);
const sorted = (all: ReadonlyMap<string, Named>) =>
  [...all.values()]
    .sort((a, b) => byLetters(a.name, b.name) || byLetters(a.id, b.id))
    .map((one): [string, Named] => [one.id, one]);

const named: fc.Arbitrary<Named> = fc.record({
  id: fc.nat(3000).map((n) => `p-${n}`),
  name: fc.nat(40).map((n) => `N"\n${n}`),
  says: fc.nat(5),
});
const many = (count: number) =>
  Array.from({ length: count }, (_, at) => ({ id: `p-${at}`, name: `N${(at * 7919) % count}`, says: at }));

describe('a packed map', () => {
  it('holds what a plain map holds after the same changes, in order, and none before is changed', () => {
    fc.assert(
      fc.property(
        fc.array(named, { maxLength: 1500, size: 'max' }),
        fc.array(fc.array(fc.tuple(named, fc.boolean()), { maxLength: 30, size: 'max' }), { maxLength: 12 }),
        fc.boolean(),
        (start, steps, looks) => {
          const plain = new Map(start.map((one) => [one.id, one]));
          let map = mapOf(plain.values());
          for (const step of steps) {
            const [was, held] = [map, sorted(plain)];
            // What was read before a change, and what was not, are the same after it.
            if (looks) expect([...map.values()]).toEqual(held.map(([, one]) => one));
            else for (const [one] of step) map.get(one.id);
            for (const [one, stays] of step) {
              if (stays) plain.set(one.id, one);
              else plain.delete(one.id);
            }
            map = map.with(step.map(([one, stays]) => [one.id, stays ? packed(one) : null]));
            expect(map.size).toBe(plain.size);
            for (const [one] of step) {
              expect(map.get(one.id)).toEqual(plain.get(one.id));
              expect(map.has(one.id)).toBe(plain.has(one.id));
            }
            const now = sorted(plain);
            expect([...map]).toEqual(now);
            expect([...map.keys()]).toEqual(now.map(([id]) => id));
            for (const [one] of step) {
              const place = now.findIndex(([id]) => id === one.id);
              expect(map.placeOf(one.id)).toBe(place < 0 ? undefined : place);
              expect([...map.at([Math.max(0, place)])]).toEqual(
                now
                  .slice(Math.max(0, place))
                  .slice(0, 1)
                  .map(([, value]) => value),
              );
            }
            expect([...was]).toEqual(held);
          }
        },
      ),
      { numRuns: 40 },
    );
  });

  it('grows from nothing to thousands, one by one, and back', () => {
    let map = mapOf([]);
    const all = many(3000);
    for (const one of all) map = map.with([[one.id, packed(one)]]);
    expect([...map]).toEqual(sorted(new Map(all.map((one) => [one.id, one]))));
    for (const one of all) expect(map.get(one.id)).toEqual(one);
    for (const { id } of all) map = map.with([[id, null]]);
    expect([map.size, ...map, ...map.at([0]), map.get('p-1')]).toEqual([0, undefined]);
    expect(map.with([['p-1', packed({ id: 'p-1', name: 'One', says: 1 })]]).size).toBe(1);
  });

  it('reads what is asked for once, and a change leaves the rest of what was read as it is', () => {
    const read: string[] = [];
    const all = many(1000);
    const map = PackedMap.ofLines(all.map(packed), {
      ...packing,
      read: (line) => {
        read.push(line);
        return packing.read(line);
      },
    });
    expect(read).toEqual([]);
    const one = map.get('p-7');
    expect(map.get('p-7')).toBe(one);
    expect(read).toHaveLength(1);
    const values = [...map.values()];
    expect(values).toContain(one);
    expect(read).toHaveLength(1000);
    const after = map.with([['p-8', packed({ id: 'p-8', name: all[8]?.name ?? '', says: -1 })]]);
    const kept = new Set([...after.values()].filter((value) => values.includes(value)));
    expect([kept.size, after.get('p-8')?.says, map.get('p-8')?.says]).toEqual([999, -1, 8]);
    expect(map.parts().filter(({ of }) => after.parts().some((part) => part.of === of))).toHaveLength(
      Math.ceil(1000 / LINES_IN_A_LIST) - 1,
    );
  });

  it('reads everything anew where it is read in another way, and only what changed where a change brings one', () => {
    const map = mapOf(many(500));
    const before = [...map.values()];
    const read = (line: string) => ({ ...packing.read(line), says: -1 });
    expect([...map.readBy(read).values()].every(({ says }) => says === -1)).toBe(true);
    const after = map.with([['p-3', packed({ id: 'p-3', name: 'N', says: 3 })]], read);
    expect(after.get('p-3')?.says).toBe(-1);
    expect([...after.values()].filter((one) => one.says !== -1)).toEqual(
      before.filter(({ id }) => id !== 'p-3'),
    );
  });

  it('shows its parts, and what stands at places', () => {
    const map = mapOf(many(5000));
    const found = map.parts().filter(({ text }) => text.includes('"p-4711"'));
    expect(found).toHaveLength(1);
    expect(found[0]?.values().some(({ id }) => id === 'p-4711')).toBe(true);
    expect(map.parts().reduce((sum, { size }) => sum + size, 0)).toBe(5000);
    const places = [0, 1, 63, 64, 65, 700, 4999, 5000];
    const all = [...map.values()];
    expect([...map.at(places)]).toEqual(places.flatMap((place) => all[place] ?? []));
  });

  it('keeps what was read of so many lists, and answers of all', () => {
    const all = many(LINES_IN_A_LIST * 1700);
    const map = mapOf(all);
    const first = map.get('p-0');
    for (const one of all.filter((_, at) => at % 13 === 0)) expect(map.get(one.id)).toEqual(one);
    expect(map.get('p-0')).toEqual(first);
    expect(map.get('p-0')).not.toBe(first);
    let at = 0;
    for (const value of map.values()) at += value.says === -1 ? 0 : 1;
    expect(at).toBe(all.length);
  });
});
