import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { all, any, inAudience, inGroup, knows, level, not, owns, profile, type Test } from '../condition';
import { asId, type TurnAwayId } from '../ids';
import { describeUse } from '../sentence';
import { namesOf } from '../site';
import { policies } from '../testing/arbitraries';
import {
  crew,
  gates,
  hours,
  night,
  nightCrew,
  observer,
  outline,
  pass,
  policy,
  suspended,
  team,
  vocabulary,
} from '../testing/larkfell';
import { namesUsed, openPolicy, type Policy, usesOf, usesWhere } from '.';

const said = (list: ReturnType<typeof usesOf>) => list.map((use) => describeUse(use, outline, vocabulary));
const withWho = (who: (typeof gates.crew)['who']): Policy => ({
  ...openPolicy,
  gates: [{ ...gates.crew, who }],
});

describe('where something is used', () => {
  it('is told for gates and audiences, in their order', () => {
    expect(said(usesOf(policy, 'group', crew))).toEqual([
      'the gate over Dome crew and everything below it',
      'the audience Night crew',
    ]);
    expect(said(usesOf(policy, 'level', observer))).toEqual([
      'the gate over Observers’ room and everything below it',
    ]);
    expect(said(usesOf(policy, 'audience', nightCrew))).toEqual(['the audience Keepers or night']);
    expect(usesOf(policy, 'role', 'nobody')).toEqual([]);
  });

  it('is found however deep it stands, and denied as well', () => {
    const deep = withWho(any(all(not(any(inGroup(suspended), owns(pass)))), inAudience(nightCrew)));
    expect(usesOf(deep, 'group', suspended)).toHaveLength(1);
    expect(usesOf(deep, 'product', pass)).toHaveLength(1);
    expect(usesOf(deep, 'audience', nightCrew)).toHaveLength(1);
  });

  it('tells subjects from values: a field from what it is compared with', () => {
    const gate = withWho(all(profile(hours, 'at least', 5), knows(night), level('at least', observer)));
    expect(usesOf(gate, 'field', hours)).toHaveLength(1);
    expect(usesOf(gate, 'passphrase', night)).toHaveLength(1);
    expect(usesOf(gate, 'group', hours)).toEqual([]);
  });

  it('counts what stands in the cases of otherwise as well', () => {
    const gate = {
      ...gates.crew,
      otherwise: {
        cases: [{ when: inGroup(crew), give: gates.crew.otherwise.last }],
        last: gates.crew.otherwise.last,
      },
    };
    const uses = usesOf({ ...openPolicy, gates: [gate] }, 'group', crew);
    expect(uses.map((use) => use.kind === 'gate' && use.leg)).toEqual(['who', 'otherwise']);
    expect(said(uses)[1]).toBe('the gate over Dome crew and everything below it, in its otherwise');
  });

  it('counts the texts of turn-aways that show it to their reader, with names and without', () => {
    const text = 'You logged :own[profile id "hours"] hours.';
    const gate = {
      ...gates.crew,
      otherwise: { cases: [], last: { kind: 'swap', text } },
    } as const;
    expect(usesOf({ ...openPolicy, gates: [gate] }, 'field', hours)).toMatchObject([{ leg: 'otherwise' }]);
    expect(usesOf({ ...openPolicy, gates: [gate] }, 'field', team)).toEqual([]);
    const named = asId<TurnAwayId>('yours');
    const using = {
      ...gates.crew,
      otherwise: { cases: [], last: { kind: 'named', turnAway: named } },
    } as const;
    const turnAways = [{ id: named, name: 'Yours', give: gate.otherwise.last }];
    expect(usesOf({ ...openPolicy, gates: [using], turnAways }, 'field', hours)).toHaveLength(1);
  });

  it('can be asked of any test', () => {
    const exact = (one: Test) => one.op === 'exactly';
    expect(usesWhere(policy, exact)).toEqual([]);
    expect(usesWhere(withWho(level('exactly', observer)), exact)).toHaveLength(1);
    expect(vocabulary.audiences.length).toBe(policy.audiences.length);
  });

  it('is told of everything at once as of each by itself', () => {
    fc.assert(
      fc.property(policies, (some) => {
        const used = namesUsed(some);
        for (const kind of ['group', 'role', 'level', 'audience', 'field', 'product'] as const)
          for (const { id } of namesOf({ ...vocabulary, audiences: some.audiences }, kind))
            expect(used.has(`${kind} ${id}`)).toBe(usesOf(some, kind, id).length > 0);
      }),
    );
  });
});
