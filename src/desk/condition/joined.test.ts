import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  all,
  any,
  type Condition,
  everyone,
  guests,
  hasLevel,
  inGroup,
  keyOf,
  nobody,
  not,
  signedIn,
  type Test,
  testsIn,
} from '@/core';
import { asCondition, asJoined, type Joined, joinedTests, movePart } from './joined';

it('gives back the condition it was given', () => {
  for (const condition of [
    everyone,
    nobody,
    signedIn,
    guests,
    { kind: 'any', of: [signedIn, hasLevel] } as const,
  ]) {
    expect(asCondition(asJoined(condition))).toEqual(condition);
  }
});

it('lets nobody by when the last test was taken out, however the tests were joined', () => {
  expect(asCondition(joinedTests('all', []))).toEqual(nobody);
  expect(asCondition(joinedTests('any', []))).toEqual(nobody);
});

it('grows from nothing to one test, and to two', () => {
  const one = joinedTests(asJoined(nobody).kind, [signedIn]);
  expect(asCondition(one)).toEqual(signedIn);
  expect(asCondition(joinedTests('all', [...one.of, hasLevel]))).toEqual({
    kind: 'all',
    of: [signedIn, hasLevel],
  });
});

describe('moving a part', () => {
  const [a, b, c, d] = ['a', 'b', 'c', 'd'].map((id) => inGroup(id as never)) as [Test, Test, Test, Test];
  const root = all(a, any(b, c), d) as Joined;

  it('goes before, after, into a group and out of one', () => {
    expect(movePart(root, [0], [], 3)).toEqual(all(any(b, c), d, a));
    expect(movePart(root, [2], [], 0)).toEqual(all(d, a, any(b, c)));
    expect(movePart(root, [0], [1], 1)).toEqual(all(any(b, a, c), d));
    expect(movePart(root, [1, 0], [], 0)).toEqual(all(b, a, any(c), d));
  });

  it('takes a group out that it leaves empty', () => {
    expect(movePart(all(a, any(b)) as Joined, [1, 0], [], 0)).toEqual(all(b, a));
  });

  it('goes into a group that is denied', () => {
    expect(movePart(all(a, not(any(b))) as Joined, [0], [1], 0)).toEqual(all(not(any(a, b))));
  });

  it('stays where it is dropped on itself, and moves no group into itself', () => {
    expect(movePart(root, [0], [], 1)).toBe(root);
    expect(movePart(root, [1], [1], 0)).toBe(root);
    expect(movePart(root, [9], [], 0)).toBe(root);
  });

  it('loses nothing, wherever it goes', () => {
    const paths = fc.constantFrom([0], [1], [2], [1, 0], [1, 1]);
    fc.assert(
      fc.property(paths, fc.constantFrom([], [1]), fc.nat(3), (from, to, index) => {
        const keys = (condition: Condition) => testsIn(condition).map(keyOf).toSorted();
        expect(keys(movePart(root, from, to, index))).toEqual(keys(root));
      }),
    );
  });
});
