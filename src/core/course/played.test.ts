/** What was played: in order, joined, and never more than there is. */
import * as fc from 'fast-check';
import { expect, it } from 'vitest';
import { joinedRanges, playedShare, type Ranges } from './played';

const ranges: fc.Arbitrary<Ranges> = fc.array(
  fc
    .tuple(fc.integer({ min: 0, max: 100 }), fc.integer({ min: 0, max: 100 }))
    .map(([from, to]) => [Math.min(from, to), Math.max(from, to)] as const),
  { maxLength: 12 },
);

it('joins what touches, and changes nothing when it is done again', () => {
  fc.assert(
    fc.property(ranges, (list) => {
      const joined = joinedRanges(list);
      expect(joinedRanges(joined)).toEqual(joined);
      for (const [at, [from]] of joined.entries()) expect(from).toBeGreaterThan(joined[at - 1]?.[1] ?? -1);
    }),
  );
});

it('has seen exactly the seconds that one of the ranges has', () => {
  fc.assert(
    fc.property(ranges, fc.integer({ min: 1, max: 100 }), (list, length) => {
      const seen = Array.from({ length }, (_, second) => second).filter((second) =>
        list.some(([from, to]) => from <= second && second + 1 <= to),
      );
      expect(playedShare(list, length)).toBeCloseTo(seen.length / length, 9);
    }),
  );
});

it('never goes back when more is played, and is nothing of a video without length', () => {
  fc.assert(
    fc.property(ranges, ranges, (before, more) => {
      expect(playedShare([...before, ...more], 90)).toBeGreaterThanOrEqual(playedShare(before, 90));
    }),
  );
  expect(playedShare([[0, 5]], 0)).toBe(0);
  expect(
    joinedRanges([
      [Number.NaN, 3],
      [2, Number.POSITIVE_INFINITY],
      [5, 4],
    ]),
  ).toEqual([]);
});
