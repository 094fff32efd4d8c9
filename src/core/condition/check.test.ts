import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { tests } from '../testing/arbitraries';
import { crew, hours, pass, team, vocabulary } from '../testing/larkfell';
import { catalogue, FACT_NAMES, inGroup, isFakeable, isPrivate, problemOf, profile, test, testOf } from '.';

it('declares every fact once', () => {
  expect(catalogue.map(({ name }) => name).toSorted()).toEqual([...FACT_NAMES].toSorted());
  expect(new Set(catalogue.map(({ phrase }) => phrase)).size).toBe(catalogue.length);
});

it('finds nothing wrong with what the catalogue offers, unless a name is gone', () => {
  fc.assert(
    fc.property(tests, (one) => {
      const problem = problemOf(one, vocabulary);
      if (problem !== null) expect(problem.gone, problem.message).toBe(true);
    }),
    { numRuns: 1000 },
  );
});

it.each([
  [profile(hours, 'contains', '1'), 'can’t be asked with “contains”'],
  [profile(hours, 'at least', '100'), '“100” is not a number'],
  [profile(hours, 'at least', Number.NaN), 'is not a number'],
  [profile(hours, 'between', 5), 'Give “Profile field” a value'],
  [profile(hours, 'at least'), 'Give “Profile field” a value'],
  [test('signed in', 'is', 'x'), 'takes no value'],
  [test('owns', 'is'), 'Say what “Owns” is about'],
  [testOf('level', 'x', 'is set'), 'is not of anything'],
  [test('date', 'after', '2026-02-30'), 'is not a day'],
  [test('time', 'between', ['25:00', '06:00']), 'is not a time'],
  [test('network', 'one of', ['10.0.0.0/33']), 'is not a network'],
  [test('network', 'one of', ['10/8']), 'is not a network'],
  [test('share', 'at most', 100), 'between 0 and 100'],
  [test('joined', 'within the last', 1.5), 'whole number of days'],
  [test('mail domain', 'is', ' '), 'Write what to compare with'],
])('says how to mend what is wrong: %j', (one, message) => {
  expect(problemOf(one, vocabulary)).toEqual({ gone: false, message: expect.stringContaining(message) });
});

it('tells what is gone from what is wrong', () => {
  expect(problemOf(inGroup('x' as never), vocabulary)).toMatchObject({ gone: true });
  expect(problemOf(profile(team, 'is', 'Kitchen'), vocabulary)).toMatchObject({ gone: true });
  expect(problemOf(testOf('owns', 'x', 'is'), vocabulary)).toMatchObject({ gone: true });
  expect(problemOf(inGroup(crew), vocabulary)).toBeNull();
  expect(problemOf(testOf('owns', pass, 'is'), vocabulary)).toBeNull();
});

describe('what visitors can make up', () => {
  it('is what their browser says, and fields they fill in themselves', () => {
    expect(isFakeable(testOf('parameter', 'ref', 'is set'), vocabulary)).toBe(true);
    expect(isFakeable(testOf('profile', 'valley', 'is set'), vocabulary)).toBe(true);
    expect(isFakeable(profile(team, 'is set'), vocabulary)).toBe(false);
    expect(isFakeable(test('network', 'one of', ['::1']), vocabulary)).toBe(false);
  });

  it('is not named to them where it would tell how', () => {
    expect(isPrivate(testOf('parameter', 'ref', 'is', 'x'), vocabulary)).toBe(true);
    expect(isPrivate(testOf('profile', 'birth-year', 'is set'), vocabulary)).toBe(true);
    expect(isPrivate(inGroup('suspended' as never), vocabulary)).toBe(true);
    expect(isPrivate(inGroup(crew), vocabulary)).toBe(false);
  });
});
