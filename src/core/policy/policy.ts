import type { Gate } from '../gate';
import type { Audience, SiteNames, Vocabulary } from '../site';

/**
 * What decides who gets what on a site. One immutable value: draft and live are two of them. The gates stand in
 * one order, top to bottom; a gate's position is its index.
 */
export interface Policy {
  readonly gates: readonly Gate[];
  /** Conditions with names, which gates and other audiences use. */
  readonly audiences: readonly Audience[];
}

/** A policy with no gates: everything that is published is open. */
export const openPolicy: Policy = { gates: [], audiences: [] };

/** Every name that the conditions of a policy can use. */
export const vocabularyOf = (names: SiteNames, policy: Policy): Vocabulary => ({
  ...names,
  audiences: policy.audiences,
});
