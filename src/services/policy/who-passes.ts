/** Who passes a gate or is in an audience while it is being written, in numbers and first names. */
import { z } from 'zod';
import {
  addTo,
  type Bitset,
  conditionCompiler,
  conditionsOfGate,
  countOf,
  everyone,
  expanded,
  factNamed,
  type Gate,
  type Given,
  guest,
  keyOf,
  type Policy,
  printCondition,
  redirectToSignIn,
  resolveGiven,
  same,
  type Test,
  testsIn,
  vocabularyOf,
  without,
} from '@/core';
import { type Crowd, type MembershipView, MOST_NAMED, membershipOf } from '../people';
import type { Trivet } from '../running';
import { type Administrator, plainRequest, requirePermission } from '../running';
import { type PolicyProblem, readPolicy } from './read-policy';

export interface PassingReport {
  readonly of: number;
  readonly pass: Crowd;
  /** Members who pass in the draft and not as it is live. Null for what is not live yet. */
  readonly onlyInDraft: Crowd | null;
  readonly onlyLive: Crowd | null;
  readonly guestsPass: boolean;
  /** How many members don't pass and would be sent to sign in, where they have been. */
  readonly sentToSignIn: number;
  /** The tests that are true of no member, as their text. */
  readonly metByNobody: readonly string[];
}

const passing = z.strictObject({
  of: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('gate'), id: z.string().max(100) }),
    z.strictObject({ kind: z.literal('audience'), id: z.string().max(100) }),
  ]),
  policy: z.unknown(),
});

/** Counts the members who pass one gate of a policy, or are in one of its audiences, and compares with live. */
export async function whoPasses(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  now: Date,
): Promise<PassingReport | { readonly problems: readonly PolicyProblem[] }> {
  requirePermission(administrator, 'look');
  const { state } = trivet;
  const parsed = passing.safeParse(input);
  if (!parsed.success)
    return { problems: [{ gate: null, message: 'Name a gate or an audience and send its policy.' }] };
  const read = readPolicy(parsed.data.policy, state);
  if ('problems' in read) return read;
  const { of } = parsed.data;
  const find = (policy: Policy) =>
    (of.kind === 'gate' ? policy.gates : policy.audiences).find(({ id }) => id === of.id)?.who;
  const gate = of.kind === 'gate' && read.policy.gates.find(({ id }) => id === of.id);
  const who = find(read.policy);
  if (!who) return { problems: [{ gate: of.id, message: `That ${of.kind} is not in the policy.` }] };
  const vocabulary = vocabularyOf(state.names, read.policy);
  const membership = await membershipOf(state, vocabulary, now, gate ? conditionsOfGate(gate) : [who]);
  const crowdOf = (bits: Bitset): Crowd => ({
    count: countOf(bits),
    first: membership.named(bits, MOST_NAMED),
  });
  const selected = membership.select(who);
  const before = find(state.live.policy);
  const live = await membershipOf(state, state.live.compiled.vocabulary, now);
  const passed = before && live.select(before).bits;
  const request = plainRequest(state, now);
  const tests = new Map(testsIn(expanded(who, vocabulary.audiences)).map((test) => [keyOf(test), test]));
  return {
    of: membership.size,
    pass: crowdOf(selected.bits),
    onlyInDraft: passed ? crowdOf(without(selected.bits, passed)) : null,
    onlyLive: passed ? crowdOf(without(passed, selected.bits)) : null,
    sentToSignIn: gate ? countOf(sentToSignIn(gate, read.policy, membership)) : 0,
    guestsPass: conditionCompiler(vocabulary)(who)(guest, null, request),
    metByNobody: [...tests.values()]
      .filter((test) => asksMembersOnly(test) && membership.select(test).count === 0)
      .map((test) => printCondition(test, vocabulary)),
  };
}

/** The members whom a gate turns away to sign in: each gets what the first case that is true of them gives. */
function sentToSignIn({ who, otherwise }: Gate, { turnAways }: Policy, membership: MembershipView): Bitset {
  const isThat = (given: Given) => same(resolveGiven(given, turnAways), redirectToSignIn);
  let rest = without(membership.select(everyone).bits, membership.select(who).bits);
  const sent = without(rest, rest);
  for (const { when, give } of otherwise.cases) {
    const left = without(rest, membership.select(when).bits);
    if (isThat(give)) addTo(sent, without(rest, left));
    rest = left;
  }
  if (isThat(otherwise.last)) addTo(sent, rest);
  return sent;
}

/** Whether a test asks something that members alone decide; what a request brings can't be counted. */
const asksMembersOnly = (test: Test): boolean => {
  const { of, session } = factNamed(test.fact);
  return of === 'visitor' && !session;
};
