/** What a draft would do to the whole membership, and who passes a condition, in numbers and first names. */
import { z } from 'zod';
import {
  compile,
  conditionCompiler,
  type Effect,
  effectOf,
  guest,
  type ItemEffect,
  type ItemId,
  type Member,
  type Outcome,
  outcomeOf,
  type Policy,
} from '@/core';
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
export function effectOfDraft(trivet: Trivet, _administrator: Administrator, input: unknown): EffectAnswer {
  const { state } = trivet;
  const read = readPolicy(input, state.outline, state.vocabulary);
  return 'problems' in read
    ? { kind: 'wrong', problems: read.problems }
    : { kind: 'effect', report: reportOf(effectAgainstLive(state, read.policy)) };
}

/** The effect of a policy compared with what is live, over everybody. */
export function effectAgainstLive(state: SiteState, policy: Policy): Effect {
  const after =
    policy === state.draft.policy ? state.draft.compiled : compile(policy, state.outline, state.vocabulary);
  return effectOf(state.live.compiled, after, membersOf(state));
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

/** Who passes a gate while it is being written. */
export interface PassingReport {
  readonly of: number;
  readonly pass: Crowd;
  /** Members who pass in the draft and do not pass the same gate as it is live. Null for a gate that is not live. */
  readonly onlyInDraft: Crowd | null;
  readonly onlyLive: Crowd | null;
  readonly guestsPass: boolean;
}

const passing = z.strictObject({ gate: z.string().max(100), policy: z.unknown() });

/** Counts the members who pass one gate of a policy, and compares with the gate of that id that is live. */
export function whoPasses(
  trivet: Trivet,
  _administrator: Administrator,
  input: unknown,
): PassingReport | { readonly problems: readonly PolicyProblem[] } {
  const { state } = trivet;
  const parsed = passing.safeParse(input);
  if (!parsed.success) return { problems: [{ gate: null, message: 'Name a gate and send its policy.' }] };
  const read = readPolicy(parsed.data.policy, state.outline, state.vocabulary);
  if ('problems' in read) return read;
  const find = (policy: Policy) => policy.gates.find((gate) => gate.id === parsed.data.gate);
  const gate = find(read.policy);
  if (!gate) return { problems: [{ gate: parsed.data.gate, message: 'That gate is not in the policy.' }] };
  const closures = conditionCompiler(state.vocabulary);
  const passes = closures(gate.who);
  const before = find(state.live.policy);
  const passed = before ? closures(before.who) : null;
  const members = membersOf(state);
  return {
    of: members.length,
    pass: crowd(members.filter(({ facts }) => passes(facts))),
    onlyInDraft: passed && crowd(members.filter(({ facts }) => passes(facts) && !passed(facts))),
    onlyLive: passed && crowd(members.filter(({ facts }) => !passes(facts) && passed(facts))),
    guestsPass: passes(guest),
  };
}
