/** What a decision is called, what goes with it, and when two of them look the same. */
import { expect, it } from 'vitest';
import { everyone } from '../condition';
import { missing, type Reason, TURN_AWAYS, type TurnAway } from '../gate';
import { asId } from '../ids';
import { type gates, outline, people, policy, request, vocabulary } from '../testing/larkfell';
import {
  asksForLess,
  compile,
  type Decision,
  decide,
  noSuchItem,
  open,
  outcomeName,
  type Policy,
  sameToVisitor,
} from '.';

const compiled = (one: Policy) => compile(one, outline, vocabulary);
const withCrew = (change: Partial<typeof gates.crew>): Policy => ({
  ...policy,
  gates: policy.gates.map((gate) => (gate.id === 'crew' ? { ...gate, ...change } : gate)),
});
const messageWith = (reason: Reason): TurnAway => ({ kind: 'message', reason, next: { kind: 'none' } });
const atCrew = (last: TurnAway): Decision =>
  decide(compiled(withCrew({ otherwise: { cases: [], last } })), asId('crew'), people.marek, request);
const reasonOf = (decision: Decision) => (decision.kind === 'open' ? undefined : decision.reason);

it('has a name for open and for every turn-away', () => {
  expect(outcomeName('open')).toBe('open');
  expect(outcomeName('leave out')).toBe(TURN_AWAYS['leave out'].outcome);
});

it('brings the reason that is written, the administrator’s own, or none', () => {
  expect(reasonOf(atCrew(messageWith({ kind: 'written' })))).toMatch(/Dome crew/);
  expect(reasonOf(atCrew(messageWith({ kind: 'own', text: 'Not tonight.' })))).toBe('Not tonight.');
  expect(reasonOf(atCrew(messageWith({ kind: 'kept back' })))).toBeNull();
  expect(reasonOf(atCrew(missing))).toBeNull();
});

it('is the same to a visitor when they get the same, whatever turned them away', () => {
  const own = atCrew(messageWith({ kind: 'own', text: 'Not tonight.' }));
  const other = atCrew(messageWith({ kind: 'own', text: 'Not today.' }));
  const crew = atCrew(missing);
  expect(sameToVisitor(open, open)).toBe(true);
  expect([sameToVisitor(open, own), sameToVisitor(own, open)]).toEqual([false, false]);
  expect(sameToVisitor(own, own)).toBe(true);
  expect(sameToVisitor(own, other)).toBe(false);
  expect(sameToVisitor(own, crew)).toBe(false);
  expect(sameToVisitor(crew, noSuchItem)).toBe(true);
});

it('may open what asks for less, and nothing that asks for as much', () => {
  const [before, wider] = [compiled(policy), compiled(withCrew({ who: everyone }))];
  const at = (id: string) => outline.items.get(asId(id)) as never;
  expect(asksForLess(before, wider)(at('crew'))).toBe(true);
  expect(asksForLess(before, before)(at('crew'))).toBe(false);
  expect(asksForLess(before, wider)(at('home'))).toBe(false);
  expect(asksForLess(compiled({ ...policy, gates: [] }), before)(at('crew'))).toBe(false);
});
