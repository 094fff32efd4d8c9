import { expect, it } from 'vitest';
import { benchColumns, benchFive, benchText } from './conditions';
import { benchDecide } from './decide';

it('runs, and its hand-written closures agree with the compiled policy', () => {
  const { compiled, byHand } = benchDecide(10, 1);
  expect(compiled).toBeGreaterThan(0);
  expect(byHand).toBeGreaterThan(0);
});

it('agrees with what is written by hand for conditions, over columns and as text', () => {
  expect(benchFive(5, 1).compiled).toBeGreaterThan(0);
  expect(benchColumns(1000, 40, 1).bytesPerPerson).toBeGreaterThan(0);
  expect(benchText(200).parse).toBeGreaterThan(0);
});
