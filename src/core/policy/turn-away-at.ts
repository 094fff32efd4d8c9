/** What a gate gives those it turns away at an item: fitted to the item's kind, with its reason in words. */
import {
  fitTo,
  type Gate,
  type Given,
  missing,
  type NamedTurnAway,
  resolveGiven,
  type TurnAway,
} from '../gate';
import { reasonFor } from '../sentence/who';
import type { Item, ItemKind, Vocabulary } from '../site';
import type { TurnedAway } from './decision';

/** A turn-away as visitors of a kind of item get it, with the reason worked out. */
export type Fitted = Pick<TurnedAway, 'turnAway' | 'reason'>;

/** What a gate gives with one of its turn-aways, for items of a kind. */
export function fittedFor(
  gate: Gate,
  given: Given,
  kind: ItemKind,
  named: readonly NamedTurnAway[],
  vocabulary: Vocabulary,
): Fitted {
  const turnAway = fitTo(kind, resolveGiven(given, named));
  return { turnAway, reason: reasonIn(turnAway, gate, vocabulary) };
}

/** The decision that a gate over `at` makes with what it gives. */
export const turnedAwayBy = (gate: Gate, { turnAway, reason }: Fitted, at: Item['id']): TurnedAway => ({
  kind: 'turned away',
  turnAway,
  reason,
  because: { kind: 'gate', gate: gate.id, at },
});

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

/** The decision for a shared section of whose hosts none is open. */
export const shutAt = (at: Item['id'], kind: ItemKind): TurnedAway => ({
  kind: 'turned away',
  turnAway: fitTo(kind, missing),
  reason: null,
  because: { kind: 'hosts', at },
});

/** The answer for an id that the site does not have. */
export const noSuchItem: TurnedAway = {
  kind: 'turned away',
  turnAway: missing,
  reason: null,
  because: { kind: 'no such item' },
};
