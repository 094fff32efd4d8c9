import { expect, it } from 'vitest';
import {
  all,
  any,
  type Condition,
  everyone,
  guests,
  inAudience,
  inGroup,
  level,
  not,
  profile,
  signedIn,
  test,
  testOf,
} from '../condition';
import { type AudienceId, asId } from '../ids';
import {
  crew,
  friend,
  gates,
  keeper,
  observer,
  outline,
  team,
  valley,
  vocabulary,
} from '../testing/larkfell';
import { missing, remarksOn, remarksOnCondition } from '.';

const kinds = (condition: Parameters<typeof remarksOnCondition>[0], names = vocabulary) =>
  remarksOnCondition(condition, names).map(({ kind }) => kind);

it('has nothing to say of what protects', () => {
  expect(kinds(all(inGroup(crew), not(level('at least', keeper)), profile(team, 'is', 'Optics')))).toEqual(
    [],
  );
});

it('remarks on what the browser says, and on what members fill in themselves', () => {
  expect(remarksOnCondition(testOf('parameter', 'ref', 'is', 'x'), vocabulary)).toMatchObject([
    { kind: 'fakeable', why: 'browser says' },
  ]);
  expect(remarksOnCondition(not(profile(valley, 'is', 'Fell')), vocabulary)).toMatchObject([
    { kind: 'fakeable', why: 'members fill in' },
  ]);
  for (const fact of ['referrer', 'device', 'browser'] as const)
    expect(kinds(test(fact, 'is set'))).toEqual(['fakeable']);
  expect(kinds(test('network', 'one of', ['10.0.0.0/8']))).toEqual([]);
});

it('remarks once, however often it is asked', () => {
  const asked = profile(valley, 'contains', 'Fell');
  expect(kinds(any(asked, not(asked), profile(valley, 'is set')))).toEqual(['fakeable']);
});

it('looks into audiences', () => {
  const sneaky = {
    ...vocabulary,
    audiences: [
      {
        id: asId<AudienceId>('sneaky'),
        name: 'Sneaky',
        who: any(level('exactly', observer), test('device', 'is', 'phone')),
      },
    ],
  };
  expect(kinds(inAudience(asId<AudienceId>('sneaky')), sneaky)).toEqual(['exact level', 'fakeable']);
});

it('says which case is never reached, and nothing where each is', () => {
  const shadowed = (...whens: readonly Condition[]) =>
    remarksOn(
      {
        ...gates.crew,
        otherwise: { ...gates.crew.otherwise, cases: whens.map((when) => ({ when, give: missing })) },
      },
      outline,
      vocabulary,
    );
  expect(shadowed(signedIn, everyone, guests)).toEqual([{ kind: 'shadowed case', index: 2 }]);
  expect(shadowed(everyone, guests, guests)).toEqual([{ kind: 'shadowed case', index: 1 }]);
  for (const cases of [[], [everyone], [signedIn, everyone], [signedIn, guests], [any(), all(signedIn)]])
    expect(shadowed(...cases)).toEqual([]);
});

it('makes each remark for itself: two browsers’ words, two exact levels', () => {
  const device = test('device', 'is', 'phone');
  expect(
    remarksOnCondition(
      any(
        device,
        test('browser', 'is set'),
        testOf('parameter', 'a', 'is', 'x'),
        testOf('parameter', 'b', 'is', 'x'),
      ),
      vocabulary,
    ),
  ).toHaveLength(4);
  expect(remarksOnCondition(any(level('exactly', friend), level('exactly', observer)), vocabulary)).toEqual([
    { kind: 'exact level', level: 'Friend', excluded: ['Observer', 'Keeper'] },
    { kind: 'exact level', level: 'Observer', excluded: ['Keeper'] },
  ]);
  expect(kinds(any(level('exactly', keeper), level('at least', friend), level('at most', friend)))).toEqual(
    [],
  );
  expect(kinds(level('exactly', 'gone' as never))).toEqual(['gone']);
});

it('says what is gone, and which levels an exact one leaves out', () => {
  expect(remarksOnCondition(inGroup('gone' as never), vocabulary)).toEqual([
    { kind: 'gone', message: 'There is no group “gone” any more. Choose another.' },
  ]);
  expect(remarksOnCondition(level('exactly', observer), vocabulary)).toEqual([
    { kind: 'exact level', level: 'Observer', excluded: ['Keeper'] },
  ]);
});
