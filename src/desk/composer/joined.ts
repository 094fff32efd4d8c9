/** Conditions as they are edited: always tests joined by *all* or *any*, even if it is one, or none. */
import { type Condition, nobody } from '@/core';

/** Conditions joined by *all* or *any*. */
export type Joined = Extract<Condition, { kind: 'all' | 'any' }>;

/** A condition as joined tests; a lone one is joined to nothing. */
export const asJoined = (condition: Condition): Joined =>
  condition.kind === 'all' || condition.kind === 'any' ? condition : { kind: 'all', of: [condition] };

/** The other way round: one test joined to nothing is just that test. */
export const asCondition = (joined: Joined): Condition =>
  joined.of.length === 1 && joined.of[0] ? joined.of[0] : joined;

/**
 * Tests joined anew after one was added or taken out. When the last one is gone nobody passes: "all of nothing" is
 * everyone, and taking a test away must not open a gate to the world. Everyone is an answer of its own, chosen by name.
 */
export const joinedTests = (kind: Joined['kind'], of: readonly Condition[]): Joined =>
  of.length === 0 ? (nobody as Joined) : { kind, of };
