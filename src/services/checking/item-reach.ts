/** Who of the membership gets an item, and what the others get: for the item's own page at the desk. */
import { asId, breakdownOf, conditionsOfPolicy, type ItemId, type Outcome } from '@/core';
import { type Crowd, crowdsOf, membershipOf } from '../people';
import type { Trivet } from '../running';
import { type Administrator, plainRequest, requirePermission } from '../running';

export interface ItemReach {
  readonly of: number;
  readonly open: Crowd;
  readonly away: readonly {
    readonly outcome: Outcome;
    readonly reason: string | null;
    readonly people: Crowd;
  }[];
}

/** Counts and first names, under the draft or what is live; null when there is no such item. */
export async function itemReach(
  trivet: Trivet,
  administrator: Administrator,
  item: string,
  side: 'draft' | 'live',
  now: Date,
): Promise<ItemReach | null> {
  requirePermission(administrator, 'look');
  const { state } = trivet;
  const { compiled, policy } = state[side];
  const { columns } = await membershipOf(state, compiled.vocabulary, now, conditionsOfPolicy(policy));
  const reach = breakdownOf(compiled, asId<ItemId>(item), columns, plainRequest(state, now));
  if (!reach) return null;
  const { size, crowd } = crowdsOf(state);
  return {
    of: size,
    open: crowd(reach.open),
    away: reach.away.map(({ outcome, reason, people }) => ({ outcome, reason, people: crowd(people) })),
  };
}
