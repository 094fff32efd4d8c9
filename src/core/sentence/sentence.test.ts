import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  all,
  any,
  everyone,
  guests,
  hasNoLevel,
  hasRole,
  inGroup,
  level,
  nobody,
  not,
  signedIn,
} from '../condition';
import { asId } from '../ids';
import { compile, decide, explain } from '../policy';
import { conditions } from '../testing/arbitraries';
import {
  crew,
  gates,
  id,
  keeper,
  observer,
  outline,
  people,
  policy,
  school,
  suspended,
  trustee,
  vocabulary,
} from '../testing/larkfell';
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
    expect(who(any(inGroup(school), hasRole(trustee)))).toBe('people in Hollin School or Trustees');
    expect(who(any(guests, hasNoLevel))).toBe('guests or people who have no level');
    expect(who(all(signedIn, any(inGroup(crew), inGroup(school)), not(inGroup(suspended))))).toBe(
      'members who either are in Dome crew or are in Hollin School, and who are not in Suspended',
    );
    expect(who(not(any(inGroup(crew), level('at least', observer))))).toBe(
      'people who are not in Dome crew and are at a level below Observer',
    );
  });

  it('says so when a name is gone', () => {
    expect(who(inGroup(asId('gone')))).toBe('people in a group that no longer exists');
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
      'This opens to people in Hollin School or Trustees.',
    );
  });

  it('leaves out what is private', () => {
    expect(reason(all(level('at least', observer), not(inGroup(suspended))))).toBe(
      'This opens to Observers and above.',
    );
    expect(reason(not(inGroup(suspended)))).toBe('This isn’t open to everyone.');
  });

  it('never names a private group, however deep it is', () => {
    fc.assert(
      fc.property(conditions, (condition) => {
        expect(reason(condition)).not.toContain('Suspended');
      }),
    );
  });
});

it('reads a gate as one sentence in three parts', () => {
  expect(describeGate(gates.observers, outline, vocabulary)).toEqual({
    what: 'Observers’ room and everything below it',
    who: 'people at Observer level or above who are not in Suspended',
    otherwise: 'guests are sent to sign in and back; everyone else gets a teaser with the way to Join us',
  });
});

it('reads a cell as a sentence, with the reason', () => {
  const compiled = compile(policy, outline, vocabulary);
  const charts = outline.items.get(id('charts'));
  if (!charts) throw new Error('no charts');
  const say = (person: keyof typeof people) =>
    describeDecision(decide(compiled, charts.id, people[person]), person, charts, outline);
  expect(say('tobin')).toBe('tobin can open Charts');
  expect(say('marek')).toBe('marek gets a teaser of Charts');
  expect(describeBecause(explain(compiled, charts.id, people.marek), charts, vocabulary)).toBe(
    'it opens only to those who are at Observer level or above and are not in Suspended',
  );
});
