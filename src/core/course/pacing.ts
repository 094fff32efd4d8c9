/**
 * How a course goes on: one activity after the other, one unit a week. What this makes are ordinary gates, which can be changed
 * like any other; it knows them again for as long as they are what it made.
 */
import { test, testOf } from '../condition';
import type { Gate, TurnAway } from '../gate';
import type { GateId, ItemId } from '../ids';
import { same } from '../same';
import type { Unit } from '../site';

const locked: TurnAway = { kind: 'locked', reason: { kind: 'written' }, next: { kind: 'none' } };
const nextInOrder = test('completed the one before', 'is');
const WEEK = 7;

const over = (id: GateId, target: Gate['what']['targets'][number], who: Gate['who']): Gate => ({
  id,
  what: { targets: [target], except: [] },
  who,
  otherwise: { cases: [], last: locked },
  stance: 'also',
});
const isLike = ({ id: _, ...gate }: Gate, { id: __, ...made }: Gate): boolean => same(gate, made);

/** The gate that opens the activities of a unit one after the other. */
export const gateInOrder = (id: GateId, unit: ItemId): Gate =>
  over(id, { kind: 'branch', item: unit }, nextInOrder);

/** The gate of these that does so, if there is one. */
export const inOrderAmong = (gates: readonly Gate[], unit: ItemId): Gate | null =>
  gates.find((gate) => isLike(gate, gateInOrder(gate.id, unit))) ?? null;

/** The gate that opens a unit so many weeks after somebody was enrolled. */
export const gateAfterWeeks = (id: GateId, unit: ItemId, course: ItemId, weeks: number): Gate =>
  over(id, { kind: 'item', item: unit }, testOf('enrolment', course, 'at least ago', weeks * WEEK));

/** For each unit of a course but the first, the gate of these that opens it its week after enrolling, if there is one. */
export const weeklyAmong = (
  gates: readonly Gate[],
  course: ItemId,
  units: readonly Unit[],
): readonly { readonly unit: ItemId; readonly weeks: number; readonly gate: Gate | null }[] =>
  units.slice(1).map(({ id }, at) => {
    const weeks = at + 1;
    const found = gates.find((gate) => isLike(gate, gateAfterWeeks(gate.id, id, course, weeks)));
    return { unit: id, weeks, gate: found ?? null };
  });
