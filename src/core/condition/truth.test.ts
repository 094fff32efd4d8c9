import fc from 'fast-check';
import { expect, it } from 'vitest';
import { and, FALSE, known, not, or, TRUE, type Truth, UNKNOWN } from './truth';

const truth = fc.constantFrom<Truth>(FALSE, UNKNOWN, TRUE);

it('follows Kleene’s tables', () => {
  const table = (connective: (values: Truth[]) => Truth) =>
    [FALSE, UNKNOWN, TRUE].map((a) => [FALSE, UNKNOWN, TRUE].map((b) => connective([a, b])));
  expect(table(and)).toEqual([
    [FALSE, FALSE, FALSE],
    [FALSE, UNKNOWN, UNKNOWN],
    [FALSE, UNKNOWN, TRUE],
  ]);
  expect(table(or)).toEqual([
    [FALSE, UNKNOWN, TRUE],
    [UNKNOWN, UNKNOWN, TRUE],
    [TRUE, TRUE, TRUE],
  ]);
  expect([FALSE, UNKNOWN, TRUE].map(not)).toEqual([TRUE, UNKNOWN, FALSE]);
});

it('has true for the and of nothing, false for the or of nothing', () => {
  expect([and([]), or([])]).toEqual([TRUE, FALSE]);
  expect([known(true), known(false)]).toEqual([TRUE, FALSE]);
});

it('keeps De Morgan’s laws and undoes a not by a not', () => {
  fc.assert(
    fc.property(fc.array(truth, { maxLength: 5 }), (values) => {
      expect(not(and(values))).toBe(or(values.map(not)));
      expect(not(or(values))).toBe(and(values.map(not)));
      for (const value of values) expect(not(not(value))).toBe(value);
    }),
  );
});

it('never makes a truth of what is not known', () => {
  fc.assert(
    fc.property(fc.array(truth, { minLength: 1, maxLength: 5 }), fc.nat(4), (values, place) => {
      const forgotten = values.with(place % values.length, UNKNOWN);
      if (and(forgotten) === TRUE) expect(and(values)).toBe(TRUE);
      if (or(forgotten) === TRUE) expect(or(values)).toBe(TRUE);
    }),
  );
});
