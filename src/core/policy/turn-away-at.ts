/** What a gate gives those it turns away at an item: fitted to the item's kind, with its reason in words. */
import { fitTo, type Gate, missing, type TurnAway } from '../gate';
import { reasonFor } from '../sentence/who';
import type { Item, Vocabulary } from '../site';
import type { TurnedAway } from './decision';

/** The decision that a gate over `at` makes with one of its turn-aways, for an item of a kind. */
export const turnedAwayBy = (
  gate: Gate,
  turnAway: TurnAway,
  at: Item['id'],
  kind: Item['kind'],
  vocabulary: Vocabulary,
): TurnedAway => {
  const fitted = fitTo(kind, turnAway);
  return {
    kind: 'turned away',
    turnAway: fitted,
    reason: reasonIn(fitted, gate, vocabulary),
    because: { kind: 'gate', gate: gate.id, at },
  };
};

function reasonIn(turnAway: TurnAway, gate: Gate, vocabulary: Vocabulary): string | null {
  if (!('reason' in turnAway) || turnAway.reason.kind === 'kept back') return null;
  return turnAway.reason.kind === 'own' ? turnAway.reason.text : reasonFor(gate.who, vocabulary);
}

/** The decision for an item that is not published, or is in one that is not. */
export const unpublishedAt = (at: Item['id'], kind: Item['kind']): TurnedAway => ({
  kind: 'turned away',
  turnAway: fitTo(kind, missing),
  reason: null,
  because: { kind: 'unpublished', at },
});

/** The answer for an id that the site does not have. */
export const noSuchItem: TurnedAway = {
  kind: 'turned away',
  turnAway: missing,
  reason: null,
  because: { kind: 'no such item' },
};
