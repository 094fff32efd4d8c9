/** The parts of gates: whoever asks something of all of a gate's conditions, items or turn-aways asks here. */
import type { Condition } from '../condition/condition';
import type { ItemId } from '../ids';
import type { Gate, Target } from './gate';
import type { Given } from './turn-away';

/** What a gate covers and what it leaves out. */
export const targetsOf = ({ what }: Pick<Gate, 'what'>): readonly Target[] => [
  ...what.targets,
  ...what.except,
];

/** The items that a gate points at, to cover them or to leave them out. */
export const pointedIn = (gate: Pick<Gate, 'what'>): readonly ItemId[] =>
  targetsOf(gate).flatMap((target) => (target.kind === 'selection' ? [] : [target.item]));

/** The conditions that describe what a gate covers or leaves out. */
export const selectionsIn = (gate: Pick<Gate, 'what'>): readonly Condition[] =>
  targetsOf(gate).flatMap((target) => (target.kind === 'selection' ? [target.where] : []));

/** The conditions of a gate's cases. */
export const casesIn = ({ otherwise }: Pick<Gate, 'otherwise'>): readonly Condition[] =>
  otherwise.cases.map(({ when }) => when);

/** Every condition of a gate: who passes, what it describes, its cases. */
export const conditionsOfGate = (gate: Gate): readonly Condition[] => [
  gate.who,
  ...selectionsIn(gate),
  ...casesIn(gate),
];

/** Everything that a gate may give, the last one last. */
export const givenBy = ({ otherwise }: Pick<Gate, 'otherwise'>): readonly Given[] => [
  ...otherwise.cases.map(({ give }) => give),
  otherwise.last,
];

/** The item that a turn-away leads to, by a redirect or a next step. */
export function leadsTo(given: Given): ItemId | null {
  if (given.kind === 'redirect') return given.to.kind === 'item' ? given.to.item : null;
  return 'next' in given && given.next.kind === 'item' ? given.next.item : null;
}
