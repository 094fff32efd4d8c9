import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { tests } from '../testing/arbitraries';
import { crew, hours, pass, team, vocabulary } from '../testing/larkfell';
import {
  all,
  any,
  asksOfItem,
  audiencesIn,
  catalogue,
  choicesFor,
  FACT_NAMES,
  factNamed,
  goneNamesIn,
  inAudience,
  inGroup,
  isFakeable,
  isPrivate,
  keyOf,
  not,
  operatorsFor,
  problemOf,
  profile,
  test,
  testOf,
  testsIn,
  thingsFor,
} from '.';

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

const long = (letters: number) => 'x'.repeat(letters);
const values = (count: number) => Array.from({ length: count }, (_, at) => String(at));

it.each([
  // What is long, many or large is taken up to the limit, and not one more.
  [test('mail domain', 'is', long(500)), null],
  [test('mail domain', 'is', long(501)), 'That text is longer than 500 letters.'],
  [testOf('parameter', long(500), 'is set'), null],
  [testOf('parameter', long(501), 'is set'), 'Name the parameter, in at most 500 letters.'],
  [testOf('parameter', '', 'is set'), 'Name the parameter, in at most 500 letters.'],
  [test('mail domain', 'one of', values(100)), null],
  [test('mail domain', 'one of', values(101)), 'That is more than 100 values. Use an audience or a group.'],
  [test('joined', 'within the last', 0), null],
  [test('joined', 'within the last', 100_000), null],
  [test('joined', 'within the last', 100_001), 'Give a whole number of days, up to 100000.'],
  [test('joined', 'within the last', -1), 'Give a whole number of days, up to 100000.'],
  [test('joined', 'within the last', '1'), 'Give a whole number of days, up to 100000.'],
  [test('share', 'at most', 0.1), null],
  [test('share', 'at most', 0), 'A share is a number of percent between 0 and 100.'],
  [test('share', 'at most', '5'), 'A share is a number of percent between 0 and 100.'],
  // As many values as the operator takes, and of one kind.
  [test('mail domain', 'one of', []), 'Give “Mail domain” a value.'],
  [test('mail domain', 'one of', 'x'), 'Give “Mail domain” a value.'],
  [test('mail domain', 'is', ['x']), 'Give “Mail domain” a value.'],
  [test('date', 'between', ['2026-01-01']), 'Give “Date” a value.'],
  [
    test('mail domain', 'one of', ['x', 1] as never),
    '“Mail domain” is compared with something that is no value.',
  ],
  [
    test('mail domain', 'is', { x: 1 } as never),
    '“Mail domain” is compared with something that is no value.',
  ],
  [test('mail domain', 'one of', [1, 2]), 'Write what to compare with.'],
  [test('weekday', 'is', 1), 'Write what to compare with.'],
  [test('time', 'between', ['06:00', '6 o’clock']), '“6 o’clock” is not a time. Write it like 18:30.'],
  [test('date', 'after', 'today'), null],
  [test('signed in', 'contains', 'x'), '“Signed in” can’t be asked with “contains”; it has “is”.'],
  [
    test('weekday', 'contains', 'x'),
    '“Weekday” can’t be asked with “contains”; it has “is”, “is not”, “one of”.',
  ],
] as const)('%j: %s', (one, message) => {
  expect(problemOf(one, vocabulary)).toEqual(message === null ? null : { gone: false, message });
});

it('names what is gone, by its kind', () => {
  const kinds = [
    [inGroup('x' as never), 'group x', 'There is no group “x” any more. Choose another.'],
    [testOf('owns', 'x', 'is'), 'product x', 'There is no product “x” any more. Choose another.'],
    [profile('x' as never, 'is', 'y'), 'field x', 'There is no field “x” any more. Choose another.'],
    [
      profile(team, 'is', 'Kitchen'),
      'choice team Kitchen',
      'There is no choice “Kitchen” any more. Choose another.',
    ],
    [
      test('weekday', 'is', 'Fryday'),
      'choice weekday Fryday',
      'There is no choice “Fryday” any more. Choose another.',
    ],
  ] as const;
  for (const [one, name, message] of kinds) {
    expect(problemOf(one, vocabulary)).toEqual({ gone: true, message });
    expect(goneNamesIn(one, vocabulary)).toEqual([name]);
  }
  const there = [
    inGroup(crew),
    testOf('owns', pass, 'is'),
    profile(team, 'one of', ['Optics', 'optics']),
    testOf('parameter', 'ref', 'is', 'x'),
    test('mail domain', 'is', 'anything'),
    test('weekday', 'one of', ['Friday']),
  ];
  for (const one of there) expect(goneNamesIn(one, vocabulary)).toEqual([]);
  expect(goneNamesIn(profile(team, 'one of', ['Optics', 'A', 'B']), vocabulary)).toEqual([
    'choice team A',
    'choice team B',
  ]);
});

it('offers what there is on the site', () => {
  const operators = (one: Parameters<typeof operatorsFor>[0]) =>
    operatorsFor(one, vocabulary).map(({ op }) => op);
  expect(operators({ fact: 'date' })).not.toContain('is set');
  expect(operators({ fact: 'date' })).not.toContain('is not set');
  expect(operators({ fact: 'joined' })).toEqual(expect.arrayContaining(['is set', 'is not set', 'before']));
  expect(choicesFor({ fact: 'profile', subject: team }, vocabulary)).toEqual(['Optics', 'Grounds', 'Visits']);
  expect(choicesFor({ fact: 'profile', subject: 'x' }, vocabulary)).toEqual([]);
  expect(choicesFor({ fact: 'weekday' }, vocabulary)).toHaveLength(7);
  expect(thingsFor('group', vocabulary)).toBe(vocabulary.groups);
  expect(thingsFor('date', vocabulary)).toEqual([]);
  expect(() => factNamed('x' as never)).toThrow('The catalogue has no fact "x".');
  const ofItems = catalogue.filter(({ name }) => asksOfItem({ fact: name })).map(({ name }) => name);
  expect(ofItems).toEqual(catalogue.filter(({ of }) => /item/.test(of)).map(({ name }) => name));
});

it('lists what a condition is made of, in reading order', () => {
  const [a, b] = [inGroup(crew), test('signed in', 'is')];
  const use = inAudience('friends' as never);
  const whole = any(not(all(a, use)), b, a);
  expect(testsIn(whole)).toEqual([a, b, a]);
  expect(audiencesIn(any(use, not(all(b, use))))).toEqual(['friends', 'friends']);
  const keys = [whole, any(a, b), any(b, a), all(a, b), not(a), a, b, use, all(), any()].map(keyOf);
  expect(new Set(keys).size).toBe(keys.length);
  expect(keyOf(any(not(all(a, use)), b, a))).toBe(keyOf(whole));
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
    expect(isPrivate(profile(team, 'is set'), vocabulary)).toBe(false);
    // A role may be called what a private group is called.
    expect(isPrivate(test('role', 'includes', 'suspended'), vocabulary)).toBe(false);
  });
});
