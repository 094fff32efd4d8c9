import { expect, it } from 'vitest';
import {
  all,
  any,
  type Condition,
  guests,
  hasRole,
  inGroup,
  knows,
  level,
  not,
  owns,
  signedIn,
} from '../condition';
import { redirectToSignIn } from '../gate';
import { asId, type GateId, type GroupId } from '../ids';
import { crew, vocabulary as larkfell, night, observer, outline, pass } from '../testing/larkfell';
import { forPeople, newGate, otherwiseFor } from './new-gate';

const walkers = asId<GroupId>('walkers');
const vocabulary = {
  ...larkfell,
  groups: [...larkfell.groups, { id: walkers, name: 'Walkers', private: false, open: true }],
};
const start = (...ids: string[]) =>
  newGate(
    asId<GateId>('new'),
    ids.flatMap((id) => outline.items.get(asId(id)) ?? []),
    outline,
    vocabulary,
  );
const lastOf = (who: Condition) => otherwiseFor(who, vocabulary).last;

it('begins for members, guests being sent to sign in, with what stands below the item', () => {
  expect(start('observers')).toMatchObject({
    what: { targets: [{ kind: 'branch', item: 'observers' }] },
    who: signedIn,
    otherwise: { cases: [], last: redirectToSignIn },
  });
  expect(start('home').otherwise.last).toEqual(redirectToSignIn);
  expect(start().what.targets).toEqual([]);
  expect(start('to-charts').otherwise).toEqual({ cases: [], last: { kind: 'leave out' } });
});

it('begins over several items at once; only where all of them are parts of pages are they left out', () => {
  expect(start('observers', 'to-charts')).toMatchObject({
    what: {
      targets: [
        { kind: 'branch', item: 'observers' },
        { kind: 'item', item: 'to-charts' },
      ],
    },
    otherwise: { last: redirectToSignIn },
  });
});

it('sends guests to sign in where that is needed, and tells members why they do not pass', () => {
  for (const who of [level('at least', observer), inGroup(crew), all(signedIn, not(inGroup(crew)))])
    expect(otherwiseFor(who, vocabulary)).toEqual({
      cases: [{ when: guests, give: redirectToSignIn }],
      last: { kind: 'message', reason: { kind: 'written' }, next: { kind: 'none' } },
    });
});

it('offers whoever does not own a product to buy it, guests as well: paying makes them an account', () => {
  for (const who of [owns(pass), all(signedIn, owns(pass))])
    expect(otherwiseFor(who, vocabulary)).toEqual({
      cases: [],
      last: { kind: 'message', reason: { kind: 'written' }, next: { kind: 'buy', product: pass } },
    });
});

it('sends nobody to sign in where that changes nothing', () => {
  expect(otherwiseFor(guests, vocabulary).cases).toEqual([]);
  expect(otherwiseFor(any(guests, inGroup(crew)), vocabulary).cases).toEqual([]);
  expect(otherwiseFor(knows(night), vocabulary).cases).toEqual([]);
});

it('offers the step that would open it, if one is enough and they can take it themselves', () => {
  expect(lastOf(knows(night))).toMatchObject({ next: { kind: 'passphrase' } });
  expect(lastOf(inGroup(walkers))).toMatchObject({ next: { kind: 'follow', group: walkers } });
  expect(lastOf(any(hasRole(asId('volunteer')), inGroup(walkers)))).toMatchObject({
    next: { kind: 'follow' },
  });
  expect(lastOf(all(signedIn, inGroup(walkers)))).toMatchObject({ next: { kind: 'follow' } });
  expect(lastOf(all(owns(pass), inGroup(walkers)))).toMatchObject({ next: { kind: 'none' } });
  expect(lastOf(inGroup(crew))).toMatchObject({ next: { kind: 'none' } });
});

it('follows who passes until somebody has set what the rest get', () => {
  const gate = forPeople(start('observers'), inGroup(walkers), vocabulary);
  expect(gate.otherwise).toEqual(otherwiseFor(inGroup(walkers), vocabulary));
  expect(forPeople(gate, signedIn, vocabulary)).toEqual(start('observers'));
  const set = { ...gate, otherwise: { cases: [], last: { kind: 'missing' } as const } };
  expect(forPeople(set, signedIn, vocabulary).otherwise).toBe(set.otherwise);
  expect(forPeople(start('to-charts'), inGroup(crew), vocabulary).otherwise.last.kind).toBe('leave out');
});
