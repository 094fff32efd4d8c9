/** The gates of Larkfell, in order. */
import {
  all,
  any,
  asId,
  type Condition,
  everyone,
  type Gate,
  type GateId,
  type GroupId,
  guests,
  hasNoLevel,
  hasRole,
  type ItemId,
  inGroup,
  type LevelId,
  leaveOut,
  level,
  type Message,
  missing,
  not,
  type Otherwise,
  type Policy,
  type RoleId,
  redirectToSignIn,
  signedIn,
  type Target,
  type Teaser,
  type TurnAway,
} from '@/core';

const item = (name: string): Target => ({ kind: 'item', item: asId<ItemId>(name) });
const branch = (name: string): Target => ({ kind: 'branch', item: asId<ItemId>(name) });
const group = (name: string) => inGroup(asId<GroupId>(name));
const trustee = hasRole(asId<RoleId>('trustee'));
const goTo = (name: string): TurnAway => ({
  kind: 'redirect',
  to: { kind: 'item', item: asId<ItemId>(name) },
});
const message: Message = { kind: 'message', reason: { kind: 'written' }, next: { kind: 'sign in' } };
const joinTeaser: Teaser = {
  kind: 'teaser',
  text: null,
  reason: { kind: 'written' },
  next: { kind: 'item', item: asId<ItemId>('join') },
};

const gate = (
  id: string,
  target: Target,
  who: Condition,
  otherwise: TurnAway | Otherwise,
  stance: Gate['stance'] = 'also',
): Gate => ({
  id: asId<GateId>(id),
  what: { targets: [target], except: [] },
  who,
  otherwise: 'last' in otherwise ? otherwise : { cases: [], last: otherwise },
  stance,
});

export const policy: Policy = {
  gates: [
    gate('join', item('join'), any(guests, hasNoLevel), goTo('account')),
    gate('account', item('account'), signedIn, redirectToSignIn),
    gate(
      'observers-room',
      branch('observers'),
      all(level('at least', asId<LevelId>('observer')), not(group('suspended'))),
      { cases: [{ when: guests, give: redirectToSignIn }], last: joinTeaser },
    ),
    gate('sample-chart', item('sample-chart'), everyone, missing, 'instead'),
    gate('crew', branch('crew'), group('dome-crew'), missing),
    gate('hollin-school', branch('hollin-school'), any(group('hollin-school'), trustee), message),
    gate('tarn-survey', branch('tarn-survey'), any(group('tarn-survey'), trustee), message),
    gate('trustees', item('trustees'), trustee, message),
    // The evening also asks for a hundred hours logged; profile fields are not facts yet.
    gate('keepers-evening', item('keepers'), level('exactly', asId<LevelId>('keeper')), goTo('join')),
    gate('sign-in-link', item('link-sign-in'), guests, leaveOut),
  ],
};
