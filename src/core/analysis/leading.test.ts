/** Whoever is led somewhere is led to what they can open: where not, that is found, with one of them. */
import { describe, expect, it } from 'vitest';
import { any, type Condition, everyone, guests, inGroup, level, not, signedIn } from '../condition';
import { type Gate, redirectToSignIn } from '../gate';
import { arrivalFrom } from '../policy';
import { crew, friend, id, observer, request, school } from '../testing/larkfell';
import { compiled, found, gate, kinds } from '../testing/made-up-gates';
import { describeFinding } from './describe-finding';

const sendsTo = (item: string): Gate['otherwise'] => ({
  cases: [],
  last: { kind: 'redirect', to: { kind: 'item', item: id(item) } },
});
const offers = (item: string): Gate['otherwise'] => ({
  cases: [],
  last: {
    kind: 'teaser',
    show: { kind: 'summary' },
    preview: false,
    reason: { kind: 'written' },
    next: { kind: 'item', item: id(item) },
  },
});

describe('leads astray', () => {
  it('those whom a redirect takes to a closed door, and shows one of them', () => {
    const sends = gate('sends', inGroup(crew), 'observers', { otherwise: sendsTo('school') });
    const closedThere = gate('closed', inGroup(school), 'school');
    const [one] = found(sends, closedThere).filter(({ kind }) => kind === 'led astray');
    expect(one).toMatchObject({ gate: 'sends', from: 'observers', at: 'school', how: 'closed' });
    if (one?.kind !== 'led astray') throw new Error('It was not found.');
    const { visitor, request: how } = one.witness;
    expect(arrivalFrom(compiled(sends, closedThere), one.from, visitor, how).path).toEqual([
      'observers',
      'school',
    ]);
    // Whoever is turned away there is let in here.
    const others = gate('closed', any(guests, not(inGroup(crew))), 'school');
    expect(kinds(sends, others)).not.toContain('sends: led astray');
    // To be asked to sign in is an arrival.
    const asks = gate('asks', signedIn, 'school', { otherwise: { cases: [], last: redirectToSignIn } });
    expect(kinds(sends, asks)).toEqual([]);
  });

  it('round in a circle', () => {
    const there = gate('there', inGroup(crew), 'observers', { otherwise: sendsTo('school') });
    const back = gate('back', inGroup(school), 'school', { otherwise: sendsTo('observers') });
    expect(found(there, back).filter(({ kind }) => kind === 'led astray')).toMatchObject([
      { gate: 'there', how: 'circle' },
      { gate: 'back', how: 'circle' },
    ]);
  });

  it('more than twice, wherever they arrive', () => {
    const on = (name: string, from: string, to: string, who: Condition = inGroup(crew)) =>
      gate(name, who, from, {
        what: { targets: [{ kind: 'item', item: id(from) }], except: [] },
        otherwise: sendsTo(to),
      });
    const [first, second] = [on('first', 'observers', 'school'), on('second', 'school', 'charts')];
    expect(kinds(first, second)).toEqual([]);
    const third = on('third', 'charts', 'join', any(inGroup(crew), inGroup(school)));
    const [one, ...more] = found(first, second, third);
    expect(more).toEqual([]);
    expect(one).toMatchObject({
      gate: 'first',
      kind: 'led astray',
      how: 'long',
      from: 'observers',
      at: 'join',
    });
    if (one?.kind !== 'led astray') throw new Error('It was not found.');
    // Whoever is in the school gets the charts, and goes no further.
    expect(one.witness.visitor.groups ?? []).not.toContain(school);
    expect(describeFinding(one, compiled(first, second, third), request.today)).toBe(
      'A guest is sent on from “Observers’ room” more than twice before they arrive at “Join us”.',
    );
    expect(kinds(first, second, on('third', 'charts', 'join', everyone))).toEqual([]);
  });

  it('those who are offered a page that they can’t open', () => {
    const teaser = gate('teaser', level('at least', observer), 'observers', { otherwise: offers('school') });
    const [one] = found(teaser, gate('closed', inGroup(school), 'school'));
    expect(one).toMatchObject({
      gate: 'teaser',
      kind: 'step to a closed door',
      from: 'observers',
      to: 'school',
    });
    expect(kinds(teaser, gate('closed', level('at most', friend), 'school'))).toEqual([
      'teaser: step to a closed door',
    ]);
    expect(kinds(teaser, gate('closed', not(level('at least', observer)), 'school'))).toEqual([
      'teaser: step to a closed door',
    ]);
    expect(kinds(teaser)).toEqual([]);
  });
});
