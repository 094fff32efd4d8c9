import { describe, expect, it } from 'vitest';
import { nobody } from '../condition';
import type { Gate } from '../gate';
import { asId, type GateId } from '../ids';
import { gates, id, outline, people, policy, request, vocabulary } from '../testing/larkfell';
import { arrivalFrom, compile, misledBy, type Policy } from '.';

const closedTo = (item: string, to: string): Gate => ({
  id: asId<GateId>(`${item}-${to}`),
  what: { targets: [{ kind: 'item', item: id(item) }], except: [] },
  who: nobody,
  otherwise: { cases: [], last: { kind: 'redirect', to: { kind: 'item', item: id(to) } } },
  stance: 'also',
});
const under = (...list: Gate[]): Policy => ({ ...policy, gates: list });
const from = (policies: Policy, item: string) =>
  arrivalFrom(compile(policies, outline, vocabulary), id(item), people.tobin, request);

describe('where a redirect leads in the end', () => {
  it('is the item itself when it does not redirect', () => {
    expect(from(policy, 'home')).toEqual({ path: ['home'], end: { kind: 'open' } });
  });

  it('follows one redirect after another', () => {
    expect(from(under(gates.join, closedTo('home', 'join')), 'home')).toMatchObject({
      path: ['home', 'join', 'account'],
      end: { kind: 'open' },
    });
  });

  it('ends at what turns the visitor away in another way', () => {
    const { path, end } = from(under(gates.crew, closedTo('home', 'crew')), 'home');
    expect(path).toEqual(['home', 'crew']);
    expect(end).toMatchObject({ turnAway: { kind: 'missing' } });
  });

  it('says so when it comes round in a circle, of one or of many', () => {
    expect(from(under(closedTo('home', 'home')), 'home').end).toBeNull();
    const circle = under(closedTo('home', 'join'), closedTo('join', 'account'), closedTo('account', 'home'));
    expect(from(circle, 'join')).toEqual({ path: ['join', 'account', 'home', 'join'], end: null });
  });
});

describe('those whom a redirect leads astray', () => {
  const guest = { kind: 'guest' } as const;
  const misled = (gate: Gate, ...others: Gate[]) =>
    misledBy(compile(under(gate, ...others), outline, vocabulary), gate, [guest], request).map(
      ({ from, at, how }) => [from, at, how],
    );

  it('are told: sent to what is closed to them as well, or round in a circle', () => {
    expect(misled(closedTo('home', 'crew'), gates.crew)).toEqual([['home', 'crew', 'closed']]);
    expect(misled(closedTo('home', 'join'), closedTo('join', 'home'))).toEqual([['home', 'home', 'circle']]);
  });

  it('are not those who arrive, by whatever way, or are sent to sign in', () => {
    expect(misled(closedTo('home', 'join'), gates.join)).toEqual([]);
    expect(misled(closedTo('home', 'account'), gates.account)).toEqual([]);
    expect(misled(gates.crew)).toEqual([]);
  });
});
