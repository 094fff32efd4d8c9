/** What a draft would do to the whole membership: who gains, who loses, where, by which gate, and what guests notice. */
import {
  compile,
  conditionsOfPolicy,
  type Effect,
  effectSteps,
  type GateId,
  type GuestChange,
  guestChangeOf,
  type ItemId,
  type Outcome,
  outcomeOf,
  type Policy,
  type Shift,
} from '@/core';
import type { RevisionEffect } from '@/store';
import { type Crowd, crowdsOf, membershipOf } from '../people';
import type { SiteState, Trivet } from '../running';
import { type Administrator, plainRequest, requirePermission, yielder } from '../running';
import { type PolicyProblem, readPolicy } from './read-policy';

/** An effect as the desk shows it. */
export interface EffectReport {
  /** How many members there are. */
  readonly of: number;
  readonly gains: Crowd;
  readonly loses: Crowd;
  /** Items at which the same people notice the same stand together. */
  readonly places: readonly {
    readonly items: readonly ItemId[];
    /** Of shared sections among them, on how many pages it is so. */
    readonly hosts: Readonly<Record<string, number>>;
    readonly gains: Crowd;
    readonly loses: Crowd;
    /** People who stay turned away but get something else. */
    readonly sees: Crowd;
    readonly guests: { readonly before: Outcome; readonly after: Outcome } | null;
  }[];
  /** Where guests notice it. */
  readonly guests: GuestChange;
  /** The gates that turned away those who gain, or turn away those who lose; most people first. */
  readonly byGate: readonly { readonly gate: GateId; readonly gains: Crowd; readonly loses: Crowd }[];
}

export type EffectAnswer =
  | { readonly kind: 'effect'; readonly report: EffectReport }
  | { readonly kind: 'wrong'; readonly problems: readonly PolicyProblem[] }
  | { readonly kind: 'stopped' };

/** Told of progress, and able to stop. */
export interface Watch {
  /** How much is done, from 0 to 1. */
  readonly onProgress?: (done: number) => void;
  readonly signal?: AbortSignal;
}

/** The effect of putting a policy live, without saving it. */
export async function effectOfDraft(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  now: Date,
  watch: Watch = {},
): Promise<EffectAnswer> {
  requirePermission(administrator, 'look');
  const { state } = trivet;
  const read = readPolicy(input, state);
  if ('problems' in read) return { kind: 'wrong', problems: read.problems };
  const effect = await effectUnder(state, state.live.policy, read.policy, now, watch);
  return effect === null ? { kind: 'stopped' } : { kind: 'effect', report: reportOf(effect, state) };
}

/** The effect of a policy compared with what is live, over everybody. */
export async function effectAgainstLive(state: SiteState, policy: Policy, now: Date): Promise<Effect> {
  const effect = await effectUnder(state, state.live.policy, policy, now, {});
  if (effect === null) throw new Error('Nobody could have stopped this.');
  return effect;
}

/** Works an effect out in pieces, so that the site goes on answering; null when it was stopped. */
export async function effectUnder(
  state: SiteState,
  before: Policy,
  after: Policy,
  now: Date,
  { onProgress, signal }: Watch,
): Promise<Effect | null> {
  const rest = yielder();
  const was = compiledIn(state, before);
  await rest();
  const is = compiledIn(state, after);
  await rest();
  const { columns } = await membershipOf(state, was.vocabulary, now, conditionsOfPolicy(before));
  await membershipOf(state, is.vocabulary, now, conditionsOfPolicy(after));
  const steps = effectSteps(was, is, columns, plainRequest(state, now));
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
    if (!(await rest())) continue;
    onProgress?.(step.value);
    if (signal?.aborted) return null;
  }
}

function compiledIn(state: SiteState, policy: Policy) {
  if (policy === state.draft.policy) return state.draft.compiled;
  return policy === state.live.policy ? state.live.compiled : compile(policy, state.outline, state.names);
}

function reportOf(effect: Effect, state: SiteState): EffectReport {
  const { crowd, size } = crowdsOf(state);
  const most = (a: { readonly gains: Crowd; readonly loses: Crowd }) => a.gains.count + a.loses.count;
  return {
    of: size,
    gains: crowd(effect.gains),
    loses: crowd(effect.loses),
    places: effect.shifts.map(({ items, hosts, gains, loses, sees, guests }) => ({
      items: items.map(({ id }) => id),
      hosts: Object.fromEntries(hosts),
      gains: crowd(gains),
      loses: crowd(loses),
      sees: crowd(sees),
      guests: guests && { before: outcomeOf(guests.before), after: outcomeOf(guests.after) },
    })),
    guests: guestChangeOf(effect.shifts),
    byGate: effect.byGate
      .map(({ gate, gains, loses }) => ({ gate, gains: crowd(gains), loses: crowd(loses) }))
      .toSorted((a, b) => most(b) - most(a)),
  };
}

/** What is kept of an effect with the revision that had it. */
export function recordOfEffect(effect: Effect, state: SiteState): RevisionEffect {
  const { crowd } = crowdsOf(state);
  const some = (side: Effect['gains']) => {
    const { count, first } = crowd(side);
    return { count, names: first.map(({ name }) => name) };
  };
  const ids = (shifts: readonly Shift[]) => shifts.flatMap(({ items }) => items.map(({ id }) => id));
  return {
    gains: some(effect.gains),
    loses: some(effect.loses),
    items: ids(effect.shifts),
    guests: guestChangeOf(effect.shifts),
  };
}
