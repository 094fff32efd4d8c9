import type { Gate } from '../gate';

/**
 * What decides who gets what on a site. One immutable value: draft and live are two of them. The gates stand in
 * one order, top to bottom; a gate's position is its index.
 */
export interface Policy {
  readonly gates: readonly Gate[];
}

/** A policy with no gates: everything that is published is open. */
export const openPolicy: Policy = { gates: [] };
