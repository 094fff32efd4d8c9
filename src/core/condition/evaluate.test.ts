import fc from 'fast-check';
import { expect, it } from 'vitest';
import { asId } from '../ids';
import { conditions, visitors } from '../testing/arbitraries';
import { crew, observer, people, suspended, vocabulary } from '../testing/larkfell';
import { holds } from '../testing/naive';
import {
  all,
  any,
  conditionCompiler,
  everyone,
  FALSE,
  hasNoLevel,
  inGroup,
  level,
  nobody,
  not,
  TRUE,
  trace,
  UNKNOWN,
} from '.';

const truthOf = (condition: Parameters<typeof trace>[0], visitor: Parameters<typeof trace>[1]) =>
  trace(condition, visitor, vocabulary).truth;

it('agrees in all three forms: closure, trace and the naive reading', () => {
  fc.assert(
    fc.property(conditions, visitors, (condition, visitor) => {
      const naive = holds(condition, visitor, vocabulary);
      expect(truthOf(condition, visitor)).toBe(naive === undefined ? UNKNOWN : naive ? TRUE : FALSE);
      expect(conditionCompiler(vocabulary)(condition)(visitor)).toBe(naive === true);
    }),
    { numRuns: 3000 },
  );
});

it('never turns an unknown into an opening by denying it', () => {
  fc.assert(
    fc.property(conditions, visitors, (condition, visitor) => {
      const compile = conditionCompiler(vocabulary);
      expect(compile(condition)(visitor) && compile(not(condition))(visitor)).toBe(false);
    }),
  );
});

it('does not let a guest pass as "not in Suspended": nobody knows whether they are', () => {
  const notSuspended = not(inGroup(suspended));
  expect(truthOf(notSuspended, people.guest)).toBe(UNKNOWN);
  expect(truthOf(notSuspended, people.marek)).toBe(TRUE);
  expect(truthOf(notSuspended, people.basil)).toBe(FALSE);
});

it('treats a missing level as unknown to every comparison, and as known to "is not set"', () => {
  expect(truthOf(not(level('at least', observer)), people.marek)).toBe(UNKNOWN);
  expect(truthOf(level('at most', observer), people.marek)).toBe(UNKNOWN);
  expect(truthOf(hasNoLevel, people.marek)).toBe(TRUE);
  expect(truthOf(hasNoLevel, people.guest)).toBe(TRUE);
});

it('tells "at least" from "exactly"', () => {
  expect(truthOf(level('at least', observer), people.ines)).toBe(TRUE);
  expect(truthOf(level('exactly', observer), people.ines)).toBe(FALSE);
  expect(truthOf(level('exactly', observer), people.tobin)).toBe(TRUE);
});

it('makes a test unknown when what it names no longer exists, even for somebody who still has it', () => {
  const gone = asId<typeof crew>('gone');
  const visitor = { ...people.ines, groups: [gone] };
  expect(truthOf(inGroup(gone), visitor)).toBe(UNKNOWN);
  expect(truthOf(not(inGroup(gone)), visitor)).toBe(UNKNOWN);
});

it('reads "all of nothing" as everyone and "any of nothing" as nobody', () => {
  expect(truthOf(everyone, people.guest)).toBe(TRUE);
  expect(truthOf(nobody, people.priya)).toBe(FALSE);
  expect(truthOf(all(any(), everyone), people.priya)).toBe(FALSE);
});

it('shares one closure between equal conditions', () => {
  const compile = conditionCompiler(vocabulary);
  expect(compile(inGroup(crew))).toBe(compile(inGroup(crew)));
});
