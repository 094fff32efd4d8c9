import type { Condition } from '../condition';
import { conditionsOfExpectation, type Expectation } from '../expectation/expectation';
import { conditionsOfGate, type Gate, type NamedTurnAway } from '../gate';
import type { GateId, ItemId, LandingId } from '../ids';
import type { Audience, OpenableKind, SiteNames, Vocabulary } from '../site';

/** Where somebody arrives after signing in or out. The first rule that holds of them decides. */
export interface Landing {
  readonly id: LandingId;
  readonly after: 'sign in' | 'sign out';
  readonly when: Condition;
  readonly to: ItemId;
  /** Whether it holds even for those who were on their way somewhere. */
  readonly always: boolean;
}

/** A gate that new items of a kind start with, those of a category or all of them. */
export interface Default {
  readonly kind: OpenableKind;
  readonly category: string | null;
  readonly gate: GateId;
}

/**
 * What decides who gets what on a site. One immutable value: draft and live are two of them. The gates stand in
 * one order, top to bottom; a gate's position is its index.
 */
export interface Policy {
  readonly gates: readonly Gate[];
  /** Conditions with names, which gates and other audiences use. */
  readonly audiences: readonly Audience[];
  /** Turn-aways with names, which gates use. */
  readonly turnAways: readonly NamedTurnAway[];
  /** In the order in which they are asked. */
  readonly landings: readonly Landing[];
  readonly defaults: readonly Default[];
  /** What must stay so, whatever is changed. They decide nothing. */
  readonly expectations: readonly Expectation[];
}

/** A policy with no gates: everything that is published is open. */
export const openPolicy: Policy = {
  gates: [],
  audiences: [],
  turnAways: [],
  landings: [],
  defaults: [],
  expectations: [],
};

/** Every condition of a policy: those of its gates, its audiences, its landing rules and its expectations. */
export const conditionsOfPolicy = ({
  gates,
  audiences,
  landings,
  expectations,
}: Policy): readonly Condition[] => [
  ...gates.flatMap(conditionsOfGate),
  ...audiences.map(({ who }) => who),
  ...landings.map(({ when }) => when),
  ...expectations.flatMap(conditionsOfExpectation),
];

/** Every name that the conditions of a policy can use. */
export const vocabularyOf = (names: SiteNames, policy: Policy): Vocabulary => ({
  ...names,
  audiences: policy.audiences,
});
