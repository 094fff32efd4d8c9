import fc from 'fast-check';
import { expect, it } from 'vitest';
import { PairTable } from './pair-table';

const number = fc.oneof(fc.nat(6), fc.nat(2 ** 31 - 2));

it('holds what a map would, over any run of changes', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.constantFrom('set', 'set', 'delete', 'clear'), number, number, number), {
        maxLength: 60,
      }),
      (steps) => {
        const table = new PairTable();
        const map = new Map<string, number>();
        for (const [what, a, b, value] of steps) {
          if (what === 'set') {
            table.set(a, b, value);
            map.set(`${a} ${b}`, value);
          } else if (what === 'delete') {
            table.delete(a, b);
            map.delete(`${a} ${b}`);
          } else if (value % 20 === 0) {
            table.clear();
            map.clear();
          }
          for (const [, c, d] of steps) expect(table.get(c, d)).toBe(map.get(`${c} ${d}`) ?? -1);
        }
      },
    ),
  );
});

it('grows, and keeps what is in it', () => {
  const table = new PairTable();
  for (let at = 0; at < 20_000; at++) table.set(at % 100, at, at);
  for (let at = 0; at < 20_000; at += 2) table.delete(at % 100, at);
  for (let at = 0; at < 20_000; at++) table.set(at % 100, at + 20_000, at);
  for (let at = 0; at < 20_000; at++) {
    expect(table.get(at % 100, at)).toBe(at % 2 === 0 ? -1 : at);
    expect(table.get(at % 100, at + 20_000)).toBe(at);
  }
});
