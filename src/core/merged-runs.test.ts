import fc from 'fast-check';
import { expect, it } from 'vitest';
import { mergedRuns, textOf } from './merged-runs';

const numbers = { of: Number, order: (a: number, b: number) => a - b };
const linesOf = (texts: Iterable<string>) => [...texts].flatMap((text) => text.split('\n').slice(1));

it('holds every line once, in order, in texts of so many but for the last', () => {
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.nat(10_000), { maxLength: 200 }),
      fc.integer({ min: 1, max: 12 }),
      fc.integer({ min: 1, max: 20 }),
      (all, count, inText) => {
        const runs = Array.from({ length: count }, (_, run) =>
          all
            .filter((_, at) => at % count === run)
            .sort(numbers.order)
            .map(String),
        ).map((lines) => (lines.length === 0 ? '' : textOf(lines)));
        const texts = [...mergedRuns(runs, numbers, inText)];
        expect(linesOf(texts)).toEqual(all.toSorted(numbers.order).map(String));
        const sizes = texts.map((text) => linesOf([text]).length);
        expect(sizes.slice(0, -1).filter((size) => size !== inText)).toEqual([]);
        expect(sizes.at(-1) ?? 1).toBeGreaterThan(0);
      },
    ),
  );
});
