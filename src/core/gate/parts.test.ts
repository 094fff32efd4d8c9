import { expect, it } from 'vitest';
import { guests, hasLevel, test } from '../condition';
import { asId, type GateId, type ItemId } from '../ids';
import {
  casesIn,
  conditionsOfGate,
  type Gate,
  givenBy,
  leadsTo,
  pointedIn,
  selectionsIn,
  targetsOf,
} from '.';

const home = asId<ItemId>('home');
const join = asId<ItemId>('join');
const posts = test('item kind', 'is', 'post');
const logs = test('item category', 'is', 'Night logs');
const gate: Gate = {
  id: asId<GateId>('one'),
  what: {
    targets: [
      { kind: 'branch', item: home },
      { kind: 'selection', where: posts },
    ],
    except: [
      { kind: 'item', item: join },
      { kind: 'selection', where: logs },
    ],
  },
  who: hasLevel,
  otherwise: {
    cases: [{ when: guests, give: { kind: 'redirect', to: { kind: 'item', item: join } } }],
    last: { kind: 'named', turnAway: asId('way') },
  },
  stance: 'also',
};

it('lists every part of a gate, what it leaves out and its cases too', () => {
  expect(targetsOf(gate)).toHaveLength(4);
  expect(pointedIn(gate)).toEqual([home, join]);
  expect(selectionsIn(gate)).toEqual([posts, logs]);
  expect(casesIn(gate)).toEqual([guests]);
  expect(conditionsOfGate(gate)).toEqual([hasLevel, posts, logs, guests]);
  expect(givenBy(gate).map(({ kind }) => kind)).toEqual(['redirect', 'named']);
});

it('tells where a turn-away leads, by a redirect or a next step', () => {
  const message = { kind: 'message', reason: { kind: 'written' } } as const;
  expect(givenBy(gate).map(leadsTo)).toEqual([join, null]);
  expect(leadsTo({ ...message, next: { kind: 'item', item: home } })).toBe(home);
  expect(leadsTo({ ...message, next: { kind: 'sign in' } })).toBeNull();
  expect(leadsTo({ kind: 'redirect', to: { kind: 'outside', url: 'https://moor.example/' } })).toBeNull();
  expect(leadsTo({ kind: 'missing' })).toBeNull();
});
