import { describe, expect, it } from 'vitest';
import { asId } from '../ids';
import { ITEM_KINDS, KINDS } from '../site';
import {
  fits,
  fitTo,
  fittingFor,
  leaveOut,
  missing,
  redirectToSignIn,
  resolveGiven,
  TURN_AWAY_KINDS,
  TURN_AWAYS,
  type TurnAway,
} from '.';

const teaser: TurnAway = {
  kind: 'teaser',
  show: { kind: 'summary' },
  preview: false,
  reason: { kind: 'written' },
  next: { kind: 'none' },
};
const message: TurnAway = {
  kind: 'message',
  reason: { kind: 'own', text: 'No.' },
  next: { kind: 'sign in' },
};
const locked: TurnAway = { kind: 'locked', reason: { kind: 'own', text: 'No.' }, next: { kind: 'sign in' } };
const swap: TurnAway = { kind: 'swap', text: 'Something else.' };
const ALL = [teaser, redirectToSignIn, message, missing, leaveOut, swap, locked];

describe('the nearest turn-away that fits', () => {
  it('fits, for every kind of item, and is the same where it fitted already', () => {
    for (const kind of ITEM_KINDS) {
      for (const one of ALL) {
        expect(fits(kind, fitTo(kind, one))).toBe(true);
        if (fits(kind, one)) expect(fitTo(kind, one)).toBe(one);
      }
    }
  });

  it('tells no more than what was meant', () => {
    expect(fitTo('page', leaveOut)).toEqual(missing);
    expect(fitTo('post', swap)).toEqual(missing);
    expect(fitTo('file', locked)).toEqual(message);
    expect(fitTo('section', missing)).toEqual(leaveOut);
    expect(fitTo('section', redirectToSignIn)).toEqual(leaveOut);
    expect(fitTo('link', teaser)).toEqual(leaveOut);
    expect(fitTo('menu', locked)).toEqual(leaveOut);
  });

  it('has each fit some kind, and each kind some of them, the closest one among these', () => {
    const fitting = new Set(ITEM_KINDS.flatMap(fittingFor));
    expect([...fitting].sort()).toEqual([...TURN_AWAY_KINDS].sort());
    for (const kind of ITEM_KINDS) expect(fittingFor(kind)).toContain(KINDS[kind].closest);
  });

  it.each(TURN_AWAY_KINDS)('begins a %s as what it is', (kind) => {
    expect(TURN_AWAYS[kind].begin({ kind: 'written' }, { kind: 'none' }).kind).toBe(kind);
  });

  it('follows the table of the model', () => {
    expect(fittingFor('section')).toEqual(['teaser', 'message', 'leave out', 'swap', 'locked']);
    expect(fittingFor('link')).toEqual(['leave out', 'locked']);
    for (const kind of ['page', 'post', 'file'] as const)
      expect(fittingFor(kind)).toEqual(['teaser', 'redirect', 'message', 'missing']);
  });
});

it('gives nothing at all by a name that no longer exists', () => {
  const named = [{ id: asId<never>('join'), name: 'The way to join', give: teaser }];
  expect(resolveGiven({ kind: 'named', turnAway: asId('join') }, named)).toBe(teaser);
  expect(resolveGiven({ kind: 'named', turnAway: asId('gone') }, named)).toBe(missing);
  expect(resolveGiven(locked, named)).toBe(locked);
});
