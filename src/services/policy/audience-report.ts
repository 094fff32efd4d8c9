/** The audiences of a policy in numbers: how many are in each, how they overlap, where they are used. */
import { type AudienceId, both, countOf, describeUse, usesOf, vocabularyOf } from '@/core';
import type { Crowd } from '../people';
import { membershipOf } from '../people';
import type { Trivet } from '../running';
import { type Administrator, requirePermission } from '../running';
import { textUses } from '../texts';
import { type PolicyProblem, readPolicy } from './read-policy';

const MOST_SHOWN = 8;
// Overlaps are asked for every pair; beyond this many the first ones are compared.
const MOST_COMPARED = 60;

export interface AudienceCount {
  readonly id: AudienceId;
  readonly count: number;
  readonly first: Crowd['first'];
  /** Where it is used, in words. */
  readonly uses: readonly string[];
}

export interface AudienceReport {
  readonly of: number;
  readonly audiences: readonly AudienceCount[];
  /** For each of the audiences compared and each before it, how many are in both. */
  readonly overlaps: readonly (readonly number[])[];
}

/** Counts the audiences of a policy as it is being edited. */
export async function audienceReport(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  now: Date,
): Promise<AudienceReport | { readonly problems: readonly PolicyProblem[] }> {
  requirePermission(administrator, 'look');
  const { state } = trivet;
  const read = readPolicy(input, state);
  if ('problems' in read) return read;
  const { policy } = read;
  const vocabulary = vocabularyOf(state.names, policy);
  const inTexts = textUses(state, state.live.compiled.vocabulary);
  const membership = await membershipOf(
    state,
    vocabulary,
    now,
    policy.audiences.map(({ who }) => who),
  );
  const selected = policy.audiences.map((audience) => membership.select(audience.who));
  return {
    of: membership.size,
    audiences: policy.audiences.map((audience, at) => ({
      id: audience.id,
      count: selected[at]?.count ?? 0,
      first: membership.named(selected[at]?.bits ?? new Uint32Array(), MOST_SHOWN),
      uses: [
        ...usesOf(policy, 'audience', audience.id).map((use) => describeUse(use, state.outline, vocabulary)),
        ...(inTexts.get(`audience ${audience.id}`) ?? []),
      ],
    })),
    overlaps: selected
      .slice(0, MOST_COMPARED)
      .map((one, at) => selected.slice(0, at).map((other) => countOf(both(one.bits, other.bits)))),
  };
}
