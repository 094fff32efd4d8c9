import { expect, it } from 'vitest';
import { benchDecide } from './decide';

it('runs, and its hand-written closures agree with the compiled policy', () => {
  const { compiled, byHand } = benchDecide(10, 1);
  expect(compiled).toBeGreaterThan(0);
  expect(byHand).toBeGreaterThan(0);
});
