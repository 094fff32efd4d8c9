import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  all,
  any,
  everyone,
  guests,
  hasNoLevel,
  hasRole,
  inAudience,
  inGroup,
  knows,
  level,
  nobody,
  not,
  profile,
  signedIn,
  TRUE,
  trace,
} from '../condition';
import { missing } from '../gate';
import { asId } from '../ids';
import { compile, decide, explain } from '../policy';
import { conditions, requests, visitors } from '../testing/arbitraries';
import {
  crew,
  gates,
  id,
  keeper,
  nightCrew,
  observer,
  outline,
  people,
  policy,
  request,
  school,
  suspended,
  team,
  trustee,
  vocabulary,
} from '../testing/larkfell';
import { parseCondition } from '../text';
import { describeBecause, describeDecision, describeGate, describeWho, reasonFor } from '.';

const who = (condition: Parameters<typeof describeWho>[0]) => describeWho(condition, vocabulary);
const reason = (condition: Parameters<typeof describeWho>[0]) => reasonFor(condition, vocabulary);

describe('for administrators', () => {
  it('reads the common answers as people say them', () => {
    expect(who(everyone)).toBe('everyone');
    expect(who(nobody)).toBe('nobody');
    expect(who(signedIn)).toBe('members');
    expect(who(guests)).toBe('guests');
    expect(who(hasRole(trustee))).toBe('Trustees');
    expect(who(inGroup(crew))).toBe('people in Dome crew');
    expect(who(level('at least', observer))).toBe('people at Observer level or above');
    expect(who(level('exactly', keeper))).toBe('people at exactly Keeper level');
  });

  it('reads combinations without ambiguity', () => {
    expect(who(all(level('at least', observer), not(inGroup(suspended))))).toBe(
      'people at Observer level or above who are not in Suspended',
    );
    expect(who(any(inGroup(school), hasRole(trustee)))).toBe('Trustees or people in Hollin School');
    expect(who(any(guests, hasNoLevel))).toBe('guests or people without a level');
    expect(who(all(signedIn, any(inGroup(crew), inGroup(school)), not(inGroup(suspended))))).toBe(
      'members who either are in Dome crew or are in Hollin School, and who are not in Suspended',
    );
    expect(who(not(any(inGroup(crew), level('at least', observer))))).toBe(
      'members who are not in Dome crew and are at a level below Observer',
    );
  });

  it('says so when a name is gone', () => {
    expect(who(inGroup(asId('gone')))).toBe('people in a group that no longer exists');
    expect(who(not(inGroup(asId('gone'))))).toBe(
      'members who fail a test that nobody can fail since its group no longer exists',
    );
    expect(who(level('at least', asId('gone')))).toBe('members who are at a level that no longer exists');
    expect(who(knows(asId('gone')))).toBe('members who know a passphrase that no longer exists');
    expect(who(profile(team, 'is', 'Vanished'))).toBe(
      'members who pass a test that nobody can pass since its choice no longer exists',
    );
  });

  it('keeps names apart from its own words', () => {
    const named = (name: string) => ({
      ...vocabulary,
      groups: [{ id: crew, name, private: false }],
      roles: [{ id: trustee, name: 'Guest' }],
    });
    expect(describeWho(inGroup(crew), named('Friends and family'))).toBe('people in “Friends and family”');
    expect(describeWho(inGroup(crew), named('the “in” crowd'))).toBe('people in “the “in”” crowd”');
    expect(describeWho(hasRole(trustee), named('x'))).toBe('people in the role “Guest”');
  });

  it('finds words for every condition', () => {
    fc.assert(
      fc.property(conditions, (condition) => {
        expect(who(condition)).not.toMatch(/undefined|null|^$/);
      }),
    );
  });
});

describe('for visitors', () => {
  it('gives the reason in their words', () => {
    expect(reason(level('at least', observer))).toBe('This opens to Observers and above.');
    expect(reason(level('exactly', keeper))).toBe('This opens to Keepers only.');
    expect(reason(any(inGroup(school), hasRole(trustee)))).toBe(
      'This opens to Trustees or people in Hollin School.',
    );
  });

  it('leaves out what is private, and says that there is more', () => {
    expect(reason(all(level('at least', observer), not(inGroup(suspended))))).toBe(
      'This opens to Observers and above, on a further condition.',
    );
    expect(reason(any(guests, inGroup(suspended)))).toBe('This opens to guests, and to some others.');
    // Of a group with something private in it nothing is told: the rest of it would not be true by itself.
    expect(reason(all(signedIn, any(inGroup(crew), inGroup(suspended))))).toBe(
      'This opens to members, on a further condition.',
    );
    expect(reason(not(inGroup(suspended)))).toBe('This isn’t open to everyone.');
  });

  it('never names what is private or can be made up, however deep it is', () => {
    fc.assert(
      fc.property(conditions, (condition) => {
        expect(reason(condition)).not.toMatch(
          /Suspended|birth year|valley|parameter|host that|phone|tablet|computer|browser|language/,
        );
      }),
      { numRuns: 500 },
    );
  });

  it('is true of whom it names: everybody of them gets in, or it says that more is asked', () => {
    fc.assert(
      fc.property(conditions, visitors, requests, (condition, visitor, at) => {
        const told = reason(condition);
        if (!/^This opens to .*[^.s]\.$|^This opens to .*\.$/.test(told)) return;
        const scene = { visitor, item: null, request: at };
        const passes = trace(condition, scene, vocabulary).truth === TRUE;
        for (const [sentence, part] of [
          ['This opens to members.', signedIn],
          ['This opens to guests.', guests],
          ['This opens to people in Dome crew.', inGroup(crew)],
        ] as const)
          if (told === sentence) expect(passes).toBe(trace(part, scene, vocabulary).truth === TRUE);
      }),
      { numRuns: 2000 },
    );
  });
});

it('reads a gate as one sentence in three parts', () => {
  expect(describeGate(gates.observers, outline, vocabulary, [])).toEqual({
    what: 'Observers’ room and everything below it',
    who: 'people at Observer level or above who are not in Suspended',
    otherwise: 'guests are sent to sign in and back; everyone else gets a teaser with the way to Join us',
  });
});

it('tells a gate that sets others aside from one that does not, and keeps to the number of who it is about', () => {
  const { observers } = gates;
  expect(describeGate({ ...observers, stance: 'instead' }, outline, vocabulary, []).what).toBe(
    'Observers’ room and everything below it, setting aside the gates above it',
  );
  const toEveryone = { ...observers.otherwise, cases: [{ when: everyone, give: missing }] };
  expect(describeGate({ ...observers, otherwise: toEveryone }, outline, vocabulary, []).otherwise).toMatch(
    /^everyone finds nothing there; /,
  );
});

it('reads a cell as a sentence, with the reason', () => {
  const compiled = compile(policy, outline, vocabulary);
  const charts = outline.items.get(id('charts'));
  if (!charts) throw new Error('no charts');
  const say = (person: keyof typeof people) =>
    describeDecision(decide(compiled, charts.id, people[person], request), person, charts, outline);
  expect(say('tobin')).toBe('tobin can open Charts');
  expect(say('marek')).toBe('marek gets a teaser of Charts');
  expect(describeBecause(explain(compiled, charts.id, people.marek, request), charts, vocabulary)).toBe(
    'it opens only to people at Observer level or above who are not in Suspended',
  );
});

describe('the whole catalogue in words', () => {
  const read = (text: string) => {
    const parsed = parseCondition(text, vocabulary);
    if (!parsed.ok) throw new Error(parsed.error.message);
    return parsed.condition;
  };

  it.each([
    ['profile team is "Optics"', 'members whose team is Optics'],
    ['not profile team is "Optics"', 'members whose team is other than Optics'],
    ['profile "hours logged" at least 100', 'members whose “hours logged” is at least 100'],
    ['profile "dome certificate" is yes', 'members whose “dome certificate” is yes'],
    ['profile "certificate expires" after today', 'members whose “certificate expires” is after today'],
    ['profile valley is not set', 'people whose valley is not filled in'],
    ['profile valley is one of "Fell", "Tarn"', 'members whose valley is “Fell” or “Tarn”'],
    ['owns "Winter atlas"', 'owners of Winter atlas'],
    ['not owns "Winter atlas"', 'members who do not own Winter atlas'],
    ['subscribed to "Keeper’s pass"', 'members who have an active subscription to Keeper’s pass'],
    [
      'purchase of "Winter atlas" within the last 30 days',
      'members who bought Winter atlas within the last 30 days',
    ],
    [
      'not purchase of "Winter atlas" before 2026-12-01',
      'members who bought Winter atlas but not before 1 December 2026',
    ],
    ['refunded "Winter atlas"', 'members who were refunded Winter atlas'],
    ['joined at least 1 days ago', 'members who joined at least 1 day ago'],
    ['enrolled in "Dome operator induction"', 'members who are enrolled in Dome operator induction'],
    ['completed "Ladder safety"', 'members who have completed Ladder safety'],
    ['score in "Ladder safety" at least 80', 'members whose score in Ladder safety is at least 80'],
    ['person is "ines@larkfell.example"', 'members who are ines@larkfell.example'],
    ['mail domain is "hollin.example"', 'members whose mail domain is “hollin.example”'],
    ['knows passphrase "Open night"', 'people who know the passphrase Open night'],
    ['share 20', 'members who are in a stable 20 % of all members'],
    ['visitor owns item', 'members who own the item'],
    ['item kind is "page"', 'people who look at something that is a page'],
    ['item tag is "comet"', 'people who look at something tagged “comet”'],
    ['date after 2026-12-01', 'people who visit after 1 December 2026'],
    ['time between 18:00 and 06:00', 'people who visit between 18:00 and 06:00'],
    ['weekday is one of "Saturday", "Sunday"', 'people who visit on Saturdays or Sundays'],
    ['not device is "phone"', 'people who use something other than a phone'],
    ['parameter ref is "news"', 'people whose address parameter ref is “news”'],
    ['network in "10.0.0.0/8"', 'people whose network address is in 10.0.0.0/8'],
    ['audience "Night crew"', 'people in the audience Night crew'],
    ['purchase of "Winter atlas" is not set', 'people who have no paid purchase of Winter atlas'],
    ['joined is today', 'members who joined today'],
    ['not in group "Suspended"', 'members who are not in Suspended'],
    ['weekday is not "Monday"', 'people who visit on a day other than Monday'],
    ['item kind is one of "page", "post"', 'people who look at something that is a page or a post'],
    ['role Trustee or not in group "Dome crew"', 'either Trustees, or members who are not in Dome crew'],
    [
      'level at least "Observer" and in group "Dome crew" or not signed in',
      'either guests, or people at Observer level or above who are in Dome crew',
    ],
    [
      'in group "Dome crew" or owns "Winter atlas" and profile team is "Optics"',
      'either people in Dome crew, or owners of Winter atlas whose team is Optics',
    ],
    [
      'mail domain is "hollin.example" or role Trustee',
      'either Trustees, or members whose mail domain is “hollin.example”',
    ],
    [
      'weekday is "Monday" and (knows passphrase "Open night" or not in group "Suspended")',
      'people who visit on Mondays, and either who know the passphrase Open night, or who both are signed in and are not in Suspended',
    ],
    [
      'in group "Dome crew" and profile team is "Optics" and not in group "Suspended"',
      'people in Dome crew whose team is Optics and who are not in Suspended',
    ],
    [
      'signed in and (in group "Dome crew" or profile team is "Optics")',
      'members either who are in Dome crew or whose team is Optics',
    ],
    [
      '(in group "Dome crew" or owns "Keeper’s pass") and profile team is "Optics"',
      'members who either are in Dome crew or own Keeper’s pass, and whose team is Optics',
    ],
  ])('reads %s', (text, sentence) => {
    expect(who(read(text))).toBe(sentence);
  });

  it('tells visitors what an audience stands for, not its name', () => {
    expect(reason(inAudience(nightCrew))).toBe('This opens to people in Dome crew, on a further condition.');
  });

  it('tells visitors nothing that would help them make it up, nor whom it is about', () => {
    for (const text of [
      'parameter key is "lark"',
      'network in "10.0.0.0/8"',
      'person is "ines@larkfell.example"',
      'profile "birth year" at least 2000',
      'profile valley is "Fell"',
      'device is "phone"',
      'language is one of "de"',
      'share 20',
      'knows passphrase "Open night"',
    ])
      expect(reason(read(text))).toBe('This isn’t open to everyone.');
  });
});
