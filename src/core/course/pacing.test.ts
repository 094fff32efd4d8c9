import { describe, expect, it } from 'vitest';
import type { Gate } from '../gate';
import { asId, type GateId, type ItemId } from '../ids';
import { compile, decide, openPolicy } from '../policy';
import { type Item, member, type Unit, unitsOf } from '../site';
import { id, items, people, request, soundOutline, vocabulary } from '../testing/larkfell';
import { gateAfterWeeks, gateInOrder, inOrderAmong, weeklyAmong } from '.';

const gateId = (name: string) => asId<GateId>(name);
const unit = (name: string, rank: number): Item => ({
  kind: 'unit',
  id: id(name),
  parent: id('induction'),
  rank,
  title: name,
  published: true,
});
const outline = soundOutline([...items, unit('second', 1), unit('third', 2)]);
const units: readonly Unit[] = unitsOf(outline, id('induction'));
const course: ItemId = id('induction');

it('opens one activity after the other, and knows the gate that does', () => {
  const gate = gateInOrder(gateId('a'), id('safety'));
  const gates = [gateInOrder(gateId('b'), id('second')), gate];
  expect(inOrderAmong(gates, id('safety'))).toBe(gate);
  expect(inOrderAmong([{ ...gate, stance: 'instead' }], id('safety'))).toBeNull();
  const compiled = compile({ ...openPolicy, gates }, outline, vocabulary);
  const wren = member({ ...people.wren, completions: [] });
  expect(decide(compiled, id('ladder'), wren, request).kind).toBe('open');
  expect(decide(compiled, id('shutter'), wren, request)).toMatchObject({
    kind: 'turned away',
    turnAway: { kind: 'locked' },
    reason: expect.stringContaining('completed the activity before it'),
  });
});

describe('one unit a week', () => {
  const gates = [1, 2].map((weeks) =>
    gateAfterWeeks(gateId(`w${weeks}`), units[weeks]?.id ?? id(''), course, weeks),
  );
  const open = (daysAgo: string) => {
    const compiled = compile({ ...openPolicy, gates }, outline, vocabulary);
    const enrolled = member({ enrolments: [{ course, on: daysAgo, until: null }] });
    return units
      .filter((one) => decide(compiled, one.id, enrolled, request).kind === 'open')
      .map((one) => one.id as string);
  };

  it('opens the first at once and each other a week later', () => {
    expect(open('2026-11-20')).toEqual(['safety']);
    expect(open('2026-11-14')).toEqual(['safety']);
    expect(open('2026-11-13')).toEqual(['safety', 'second']);
    expect(open('2026-11-06')).toEqual(['safety', 'second', 'third']);
  });

  it('is known again unit by unit, whatever the order of the gates', () => {
    const found = (list: readonly Gate[]) => weeklyAmong(list, course, units).map(({ gate }) => gate);
    expect(found(gates)).toEqual(gates);
    expect(found([...gates].reverse())).toEqual(gates);
    // A unit that came later has none yet.
    expect(found(gates.slice(1))).toEqual([null, gates[1]]);
    expect(weeklyAmong(gates, course, units.slice(0, 1))).toEqual([]);
  });
});
