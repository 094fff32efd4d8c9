import { TURN_AWAYS, type TurnAway } from '../gate';
import type { GateId, ItemId } from '../ids';
import { same } from '../same';

/** The item is the visitor's to see. */
export interface Open {
  readonly kind: 'open';
}

/** What turned the visitor away, and at which item: the item itself, a container, or a link's target. */
export type Because =
  | { readonly kind: 'gate'; readonly gate: GateId; readonly at: ItemId }
  | { readonly kind: 'unpublished'; readonly at: ItemId }
  /** It is a shared section, and nothing that it stands on is open. */
  | { readonly kind: 'hosts'; readonly at: ItemId }
  | { readonly kind: 'no such item' };

/** The visitor gets something else. The turn-away already fits the item's kind. */
export interface TurnedAway {
  readonly kind: 'turned away';
  readonly turnAway: TurnAway;
  /** What the visitor is told about why: written from the gate's condition, the administrator's own words, or nothing. */
  readonly reason: string | null;
  readonly because: Because;
}

/** What a visitor gets for an item. */
export type Decision = Open | TurnedAway;

export const open: Open = { kind: 'open' };

/** How a decision looks at a glance: open, or the kind of turn-away. */
export type Outcome = 'open' | TurnAway['kind'];

export const outcomeOf = (decision: Decision): Outcome =>
  decision.kind === 'open' ? 'open' : decision.turnAway.kind;

/** What an outcome is called where it is named: "left out". */
export const outcomeName = (outcome: Outcome): string =>
  outcome === 'open' ? 'open' : TURN_AWAYS[outcome].outcome;

/** Whether a visitor would notice no difference between two decisions. */
export const sameToVisitor = (a: Decision, b: Decision): boolean =>
  a.kind === 'open' || b.kind === 'open'
    ? a.kind === b.kind
    : a.reason === b.reason && same(a.turnAway, b.turnAway);
