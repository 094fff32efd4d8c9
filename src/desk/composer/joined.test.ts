import { expect, it } from 'vitest';
import { everyone, guests, hasLevel, nobody, signedIn } from '@/core';
import { asCondition, asJoined, joinedTests } from './joined';

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
