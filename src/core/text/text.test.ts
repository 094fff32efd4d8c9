import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  all,
  any,
  type Condition,
  everyone,
  guests,
  hasRole,
  inAudience,
  inGroup,
  level,
  nobody,
  not,
  owns,
  profile,
  signedIn,
  test,
  testOf,
} from '../condition';
import { LONGEST_CONDITION } from '../condition/check';
import { asId, type GroupId } from '../ids';
import { conditions } from '../testing/arbitraries';
import {
  crew,
  expires,
  hours,
  nightCrew,
  observer,
  pass,
  suspended,
  team,
  trustee,
  vocabulary,
} from '../testing/larkfell';
import { completionsAt, parseCondition, printCondition } from '.';

const read = (text: string): Condition => {
  const parsed = parseCondition(text, vocabulary);
  if (!parsed.ok) throw new Error(parsed.error.message);
  return parsed.condition;
};
const errorIn = (text: string) => {
  const parsed = parseCondition(text, vocabulary);
  if (parsed.ok) throw new Error(`“${text}” was read.`);
  return parsed.error;
};

it('reads back what it prints', () => {
  fc.assert(
    fc.property(conditions, (condition) => {
      expect(read(printCondition(condition, vocabulary))).toEqual(condition);
    }),
    { numRuns: Number(process.env.TRIVET_CASES ?? 3000) },
  );
});

it.each<[string, Condition]>([
  ['everyone', everyone],
  ['nobody', nobody],
  ['not signed in', guests],
  [
    'signed in and level at least "Observer" and not in group "Suspended"',
    all(signedIn, level('at least', observer), not(inGroup(suspended))),
  ],
  [
    '(in group "Dome crew" or owns "Keeper’s pass") and profile team is "Optics"',
    all(any(inGroup(crew), owns(pass)), profile(team, 'is', 'Optics')),
  ],
  ['profile "certificate expires" after today', profile(expires, 'after', 'today')],
  ['audience "Night crew" or visitor owns item', any(inAudience(nightCrew), test('visitor owns item', 'is'))],
  ['role "Trustee"', hasRole(trustee)],
  ['profile "hours logged" at least 100', profile(hours, 'at least', 100)],
  ['joined at least 30 days ago', test('joined', 'at least ago', 30)],
  ['purchase of "Winter atlas" within the last 30 days', testOf('purchase', 'atlas', 'within the last', 30)],
  [
    'enrolment in "Dome operator induction" at least 7 days ago',
    testOf('enrolment', 'induction', 'at least ago', 7),
  ],
  ['score in "Ladder safety" between 50 and 80', testOf('score', 'ladder', 'between', [50, 80])],
  ['network in "10.0.0.0/8", "2001:db8::/32"', test('network', 'one of', ['10.0.0.0/8', '2001:db8::/32'])],
  ['time between 18:00 and 06:00', test('time', 'between', ['18:00', '06:00'])],
  ['weekday is one of "Saturday", "Sunday"', test('weekday', 'one of', ['Saturday', 'Sunday'])],
  ['share 20', test('share', 'at most', 20)],
  ['knows passphrase "Open night"', test('passphrase', 'includes', 'open-night')],
  ['in group id "gone"', inGroup('gone' as never)],
  // Of a field that is gone nobody knows what it was.
  ['profile id "gone" at least 5', profile('gone' as never, 'at least', 5)],
  ['profile id "gone" after "2026-01-01"', profile('gone' as never, 'after', '2026-01-01')],
  ['profile id "gone" is "5"', profile('gone' as never, 'is', '5')],
  ['profile team is gone "Kitchen"', profile(team, 'is', 'Kitchen')],
])('writes %s', (text, condition) => {
  expect(printCondition(condition, vocabulary)).toBe(text);
  expect(read(text)).toEqual(condition);
});

it('reads a day of a field that is gone also without quotes', () => {
  expect(read('profile id "gone" after 2026-01-01')).toEqual(profile('gone' as never, 'after', '2026-01-01'));
});

it('reads forty nots in a row, and not one more', () => {
  const nots = (count: number) => parseCondition(`${'not '.repeat(count)}signed in`, vocabulary).ok;
  expect([39, 40, 41].map(nots)).toEqual([true, true, false]);
});

it('binds or weaker than and, and weaker than not', () => {
  expect(read('signed in or in group "Dome crew" and not role Trustee')).toEqual(
    any(signedIn, all(inGroup(crew), not(hasRole(trustee)))),
  );
  expect(printCondition(any(signedIn, all(inGroup(crew), hasRole(trustee))), vocabulary)).toBe(
    'signed in or (in group "Dome crew" and role "Trustee")',
  );
});

it('does not mind case, line breaks and spaces', () => {
  expect(read('  SIGNED in\n AND  in group "dome CREW" ')).toEqual(all(signedIn, inGroup(crew)));
});

it('prints by id what two things share the name of', () => {
  const twice = {
    ...vocabulary,
    groups: [...vocabulary.groups, { id: 'other' as never, name: 'Dome crew', private: false }],
  };
  expect(printCondition(inGroup('other' as never), twice)).toBe('in group id "other"');
  expect(printCondition(inGroup(crew), twice)).toBe('in group "Dome crew"');
});

describe('an error', () => {
  it('gives line and column, what was found and what could stand there', () => {
    const error = errorIn('signed in\n  adn role "Trustee"');
    expect(error).toMatchObject({ line: 2, column: 3, found: 'adn' });
    expect(error.message).toBe('“adn” can’t stand here. Did you mean “and”?');
    expect(error.expected.map(({ insert }) => insert)).toEqual(['and', 'or']);
  });

  it('knows the nearest name', () => {
    expect(errorIn('in group "Dome crwe"').message).toBe(
      'There is no group called “Dome crwe”. Did you mean “Dome crew”?',
    );
    expect(errorIn('role Volunter').message).toContain('Did you mean “Volunteer”?');
    expect(errorIn('profile "hours loged" at least 3').message).toContain('Did you mean “hours logged”?');
    expect(errorIn('profile team is "Optcs"').message).toContain('Did you mean “Optics”?');
    expect(errorIn('role "Zebra"').message).toBe(
      'There is no role called “Zebra”. There are “Trustee” or “Volunteer”.',
    );
  });

  it.each([
    ['', 1, 'The text ends too early.'],
    ['signed', 7, 'The text ends too early. Here could stand “in”.'],
    ['level atleast "Observer"', 7, 'Did you mean “at least”?'],
    ['(signed in', 11, '“)”'],
    ['signed in)', 10, '“)” can’t stand here.'],
    ['not', 4, 'The text ends too early.'],
    ['in group', 9, '"Dome crew"'],
    ['in group "Dome crew', 10, 'The quotes that begin here do not end'],
    ['profile team is "a\\b"', 17, 'A backslash in quotes'],
    ['profile "hours logged" at least "ten"', 33, 'a number'],
    ['profile "hours logged" contains "1"', 24, '“contains” can’t stand here.'],
    ['date after 2026-02-30', 12, '“2026-02-30” is not a day'],
    ['date after tomorrow', 12, 'a day like 2026-12-01'],
    ['time between 18:00 and noon', 24, 'a time like 18:30'],
    ['time between 27:00 and 18:00', 14, 'is not a time'],
    ['joined within the last 30', 26, '“days”'],
    ['joined at least 30', 19, '“days ago”'],
    ['network in "999.1.1.1"', 12, 'is not a network'],
    ['share 120', 7, 'between 0 and 100'],
    ['signed in § role', 11, '“§” has no meaning here'],
    ['role “Trustee”', 6, 'straight quotes'],
    ['audience "Nobody here"', 10, 'There is no audience called'],
  ])('in %s is at column %i', (text, column, message) => {
    const error = errorIn(text);
    expect(error.message).toContain(message);
    expect([error.line, error.column]).toEqual([1, column]);
  });

  it.each([
    [
      'profile "certificate expires" before x',
      38,
      '“x” can’t stand here. Here could stand “today” or a day like 2026-12-01.',
    ],
    ['profile "hours logged" at least x', 33, '“x” can’t stand here. Here could stand a number.'],
    ['time between x', 14, '“x” can’t stand here. Here could stand a time like 18:30.'],
    ['weekday is "Frday"', 12, 'There is no choice called “Frday”. Did you mean “Friday”?'],
    ['(signed in', 11, 'The text ends too early. Here could stand “and”, “or” or “)”.'],
    ['profile valley is is', 19, 'Here could stand “not”, “one of”, “set”, “not set” or a text in quotes.'],
    [
      'in group x',
      10,
      'There is no group called “x”. There are “Dome crew”, “Hollin School” or “Suspended”.',
    ],
    [
      'has role',
      1,
      'Here could stand “(”, “signed in”, “level”, “in group”, “role”, “profile”, “owns”, “subscribed to” or ',
    ],
  ])('in %s, at column %i, says: %s', (text, column, message) => {
    const error = errorIn(text);
    expect(error.message).toContain(message);
    expect(error.column).toBe(column);
  });

  it('says what there is none of yet, and names the only one', () => {
    const errorWith = (text: string, groups: readonly string[]) => {
      const names = groups.map((name) => ({ id: asId<GroupId>(name), name, private: false }));
      const parsed = parseCondition(text, { ...vocabulary, groups: names });
      if (parsed.ok) throw new Error('It can be read.');
      return parsed.error;
    };
    expect(errorWith('in group ', []).message).toBe(
      'The text ends too early. Here could stand the name of a group (there is none yet).',
    );
    expect(errorWith('in group "x"', [])).toMatchObject({
      message: 'There is no group called “x”.',
      expected: [],
    });
    expect(errorWith('in group "x"', ['Dome crew']).message).toBe(
      'There is no group called “x”. There is “Dome crew”.',
    );
    expect(errorWith('in group "Dome crwe"', ['Hollin School', 'Dome crew']).expected).toEqual([
      { insert: '"Dome crew"', label: '"Dome crew"' },
      { insert: '"Hollin School"', label: '"Hollin School"' },
    ]);
  });

  it('is none up to the bounds, and one beyond each of them', () => {
    const many = (count: number, word: string) => Array<string>(count).fill('signed in').join(word);
    expect(parseCondition(many(200, ' or '), vocabulary).ok).toBe(true);
    expect(errorIn(many(201, ' or ')).message).toContain('at most 200 tests');
    const long = `role "${'x'.repeat(LONGEST_CONDITION - 7)}"`;
    expect(errorIn(long).message).toContain('There is no role called');
    expect(errorIn(`${long} `)).toMatchObject({
      message: expect.stringContaining(`${LONGEST_CONDITION + 1} characters long`),
      line: 1,
      column: 1,
      found: '',
      expected: [],
    });
    const deep = (count: number) => `${'('.repeat(count)}signed in${')'.repeat(count)}`;
    expect(parseCondition(deep(40), vocabulary).ok).toBe(true);
    expect(errorIn(deep(41)).message).toContain('nested more than 40 deep');
  });

  it('refuses what is too long, too deep or too much, and says what to do', () => {
    expect(errorIn('x'.repeat(1_000_000)).message).toContain('1000000 characters long');
    expect(errorIn(`${'('.repeat(10_000)}signed in`).message).toContain('nested more than 40 deep');
    expect(errorIn('not '.repeat(4_000)).message).toContain('nested more than 40 deep');
    expect(errorIn('all of ('.repeat(2_000)).message).toContain('nested more than 40 deep');
    expect(errorIn(Array(500).fill('signed in').join(' or ')).message).toContain('at most 200 tests');
  });

  it('is the answer to any text whatever, never a crash', () => {
    const words = fc.constantFrom(
      'not',
      'and',
      '(',
      ')',
      'profile',
      'team',
      'is',
      '"',
      '\\',
      '5',
      'in',
      'group',
      ',',
      '¤',
    );
    const texts = fc.oneof(
      fc.string({ unit: 'binary' }),
      fc.array(words).map((list) => list.join(' ')),
    );
    fc.assert(
      fc.property(texts, (text) => {
        const parsed = parseCondition(text, vocabulary);
        if (!parsed.ok) expect(parsed.error.message).not.toMatch(/undefined|null$/);
      }),
      { numRuns: 2000 },
    );
  });
});

describe('completion', () => {
  const options = (text: string) =>
    completionsAt(text, text.length, vocabulary).options.map(({ insert }) => insert);

  it('offers what could stand at the cursor', () => {
    expect(options('in group ')).toEqual(['"Dome crew"', '"Hollin School"', '"Suspended"']);
    expect(options('level ')).toEqual(['at least', 'exactly', 'at most', 'is set', 'is not set']);
    expect(options('signed in ')).toEqual(['and', 'or']);
    expect(options('(signed in ')).toEqual(['and', 'or', ')']);
    expect(options('')).toContain('signed in');
  });

  it('goes on from what is half typed, quotes or not', () => {
    expect(options('in group "Hol')).toEqual(['"Hollin School"']);
    expect(options('in group hol')).toEqual(['"Hollin School"']);
    expect(options('sig')).toContain('signed in');
    expect(options('profile hou')).toEqual(['"hours logged"']);
    expect(options('profile team is ')).toEqual(expect.arrayContaining(['"Optics"', 'not', 'set', 'one of']));
  });

  it('puts what begins like it before what holds it somewhere, and leaves out what is there already', () => {
    expect(options('r').slice(0, 4)).toEqual(['role', 'refunded', 'referrer', 'in group']);
    expect(options('SI')).toEqual(['signed in', 'visitor owns item', 'visitor in item group']);
    expect(options('signed in')).toEqual([]);
    expect(options('in group "crew')).toEqual(['"Dome crew"']);
  });

  it('looks at what stands before the cursor alone, and at no gap as something half typed', () => {
    expect(completionsAt('in group  and signed in', 9, vocabulary)).toMatchObject({ from: 9, to: 9 });
    expect(
      completionsAt('in group "Dome crew" and', 12, vocabulary).options.map(({ insert }) => insert),
    ).toEqual(['"Dome crew"']);
    expect(completionsAt('role "Trustee"', 14, vocabulary)).toMatchObject({ from: 14, to: 14 });
  });

  it('offers nothing that can’t be written for one', () => {
    for (const text of [
      'profile "hours logged" at least ',
      'profile "certificate expires" before ',
      'time between ',
    ])
      expect(options(text)).not.toContain('');
    expect(options('profile "certificate expires" before ')).toEqual(['today']);
  });

  it('says what a choice replaces', () => {
    expect(completionsAt('signed in and in group "Hol', 27, vocabulary)).toMatchObject({ from: 23, to: 27 });
  });

  it('has nothing to offer behind a mistake', () => {
    expect(options('in grup "Dome crew" ')).toEqual([]);
  });
});
