/** What a draft would do to the whole membership, and who passes a condition, in numbers and first names. */
import { z } from 'zod';
import {
  type Bitset,
  compile,
  conditionCompiler,
  countOf,
  type Effect,
  effectOf,
  expanded,
  factNamed,
  guest,
  type ItemEffect,
  type ItemId,
  keyOf,
  type Member,
  type Outcome,
  outcomeOf,
  type Policy,
  printCondition,
  type Test,
  testsIn,
  vocabularyOf,
  without,
} from '@/core';
import { plainRequest } from './clock';
import { membershipOf } from './columns';
import type { Administrator } from './desk-right';
import { type PolicyProblem, readPolicy } from './policy-form';
import type { SiteState } from './site-state';
import { memberOf } from './stand-ins';
import type { Trivet } from './trivet';

const MOST_SHOWN = 8;

/** How many people, and the first of them by name. */
export interface Crowd {
  readonly count: number;
  readonly first: readonly Member[];
}

/** An effect as the desk shows it. */
export interface EffectReport {
  readonly gains: Crowd;
  readonly loses: Crowd;
  /** Items at which the same people notice the same stand together. */
  readonly places: readonly {
    readonly items: readonly ItemId[];
    readonly gains: Crowd;
    readonly loses: Crowd;
    /** People who stay turned away but get something else. */
    readonly sees: Crowd;
    readonly guests: { readonly before: Outcome; readonly after: Outcome } | null;
  }[];
}

export type EffectAnswer =
  | { readonly kind: 'effect'; readonly report: EffectReport }
  | { readonly kind: 'wrong'; readonly problems: readonly PolicyProblem[] };

/** The effect of putting a policy live, without saving it. */
export function effectOfDraft(
  trivet: Trivet,
  _administrator: Administrator,
  input: unknown,
  now: Date,
): EffectAnswer {
  const { state } = trivet;
  const read = readPolicy(input, state);
  return 'problems' in read
    ? { kind: 'wrong', problems: read.problems }
    : { kind: 'effect', report: reportOf(effectAgainstLive(state, read.policy, now)) };
}

/** The effect of a policy compared with what is live, over everybody. */
export function effectAgainstLive(state: SiteState, policy: Policy, now: Date): Effect {
  const after =
    policy === state.draft.policy ? state.draft.compiled : compile(policy, state.outline, state.names);
  return effectOf(state.live.compiled, after, membersOf(state), plainRequest(state, now));
}

const membersOf = (state: SiteState): Member[] => [...state.people.values()].map(memberOf);

function reportOf(effect: Effect): EffectReport {
  const alike = new Map<string, ItemEffect[]>();
  for (const entry of effect.items) {
    const key = keyOfEffect(entry);
    alike.set(key, [...(alike.get(key) ?? []), entry]);
  }
  return {
    gains: crowd(effect.gains),
    loses: crowd(effect.loses),
    places: [...alike.values()].flatMap((entries) => {
      const [first] = entries;
      if (!first) return [];
      const { gains, loses, sees, guests } = first;
      return [
        {
          items: entries.map(({ item }) => item.id),
          gains: crowd(gains),
          loses: crowd(loses),
          sees: crowd(sees),
          guests: guests && { before: outcomeOf(guests.before), after: outcomeOf(guests.after) },
        },
      ];
    }),
  };
}

/** The same for two items at which the same people notice the same. */
const keyOfEffect = ({ gains, loses, sees, guests }: ItemEffect): string =>
  JSON.stringify([
    ...[gains, loses, sees].map((people) => people.map(({ id }) => id)),
    guests && [outcomeOf(guests.before), outcomeOf(guests.after)],
  ]);

const crowd = (people: readonly Member[]): Crowd => ({
  count: people.length,
  first: people.slice(0, MOST_SHOWN),
});

/** Who passes a gate or is in an audience while it is being written. */
export interface PassingReport {
  readonly of: number;
  readonly pass: Crowd;
  /** Members who pass in the draft and not as it is live. Null for what is not live yet. */
  readonly onlyInDraft: Crowd | null;
  readonly onlyLive: Crowd | null;
  readonly guestsPass: boolean;
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
export function whoPasses(
  trivet: Trivet,
  _administrator: Administrator,
  input: unknown,
  now: Date,
): PassingReport | { readonly problems: readonly PolicyProblem[] } {
  const { state } = trivet;
  const parsed = passing.safeParse(input);
  if (!parsed.success)
    return { problems: [{ gate: null, message: 'Name a gate or an audience and send its policy.' }] };
  const read = readPolicy(parsed.data.policy, state);
  if ('problems' in read) return read;
  const { of } = parsed.data;
  const find = (policy: Policy) =>
    (of.kind === 'gate' ? policy.gates : policy.audiences).find(({ id }) => id === of.id)?.who;
  const who = find(read.policy);
  if (!who) return { problems: [{ gate: of.id, message: `That ${of.kind} is not in the policy.` }] };
  const vocabulary = vocabularyOf(state.names, read.policy);
  const membership = membershipOf(state, vocabulary, now);
  const crowdOf = (bits: Bitset): Crowd => ({
    count: countOf(bits),
    first: membership.named(bits, MOST_SHOWN),
  });
  const selected = membership.select(who);
  const before = find(state.live.policy);
  const passed = before && membershipOf(state, state.live.compiled.vocabulary, now).select(before).bits;
  const request = plainRequest(state, now);
  const tests = new Map(testsIn(expanded(who, vocabulary.audiences)).map((test) => [keyOf(test), test]));
  return {
    of: membership.members.length,
    pass: crowdOf(selected.bits),
    onlyInDraft: passed ? crowdOf(without(selected.bits, passed)) : null,
    onlyLive: passed ? crowdOf(without(passed, selected.bits)) : null,
    guestsPass: conditionCompiler(vocabulary)(who)(guest, null, request),
    metByNobody: [...tests.values()]
      .filter((test) => asksMembersOnly(test) && membership.select(test).count === 0)
      .map((test) => printCondition(test, vocabulary)),
  };
}

/** Whether a test asks something that members alone decide; what a request brings can't be counted. */
const asksMembersOnly = (test: Test): boolean =>
  factNamed(test.fact).of === 'visitor' && test.fact !== 'passphrase';
