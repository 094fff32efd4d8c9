/** Whom a finding or a broken expectation concerns today, in numbers and first names. */
import { z } from 'zod';
import {
  addTo,
  allows,
  asId,
  type Bitset,
  both,
  type CompiledPolicy,
  type Condition,
  compile,
  conditionsOfPolicy,
  countOf,
  emptyBitset,
  everyone,
  expanded,
  isEmpty,
  isOpenable,
  itemAt,
  type Outcome,
  type Policy,
  peopleByOutcome,
  type Test,
  without,
} from '@/core';
import { id } from '../forms';
import { type Crowd, crowdsOf, membershipOf } from '../people';
import type { SiteState, Trivet } from '../running';
import { type Administrator, plainRequest, requirePermission, yielder } from '../running';
import { type PolicyProblem, readPolicy } from './read-policy';

/** How many items are looked at: whoever is concerned at more is concerned at these. */
const MOST_ITEMS = 200;

const asked = z.strictObject({
  policy: z.unknown(),
  of: z.discriminatedUnion('kind', [
    /** Those who get something else than is expected, at items where it is broken. */
    z.strictObject({ kind: z.literal('expectation'), id, items: z.array(id).max(50_000) }),
    /** Those who can open one item and not another. */
    z.strictObject({ kind: z.literal('difference'), open: id, closed: id }),
    /** Those who are turned away from items. */
    z.strictObject({ kind: z.literal('turned away'), items: z.array(id).max(50_000) }),
    /** Those to whom items are open though none of some gates, were it over them, would let them by. */
    z.strictObject({
      kind: z.literal('let by'),
      gates: z.array(id).min(1).max(100),
      items: z.array(id).max(50_000),
    }),
    /** Learners to whom neither an activity is open nor the one that asks for it. */
    z.strictObject({ kind: z.literal('stuck'), course: id, item: id, next: id }),
    /** Those who can open nothing. */
    z.strictObject({ kind: z.literal('nothing open') }),
  ]),
});
type Of = z.output<typeof asked>['of'];

export interface Concerned {
  readonly of: number;
  readonly people: Crowd;
  /** Whether there were more items than were looked at. */
  readonly cut: boolean;
}

export async function whomItConcerns(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  now: Date,
): Promise<Concerned | { readonly problems: readonly PolicyProblem[] }> {
  requirePermission(administrator, 'look');
  const { state } = trivet;
  const parsed = asked.safeParse(input);
  if (!parsed.success)
    return { problems: [{ gate: null, message: 'Say what is asked about, and send its policy.' }] };
  const read = readPolicy(parsed.data.policy, state);
  if ('problems' in read) return read;
  const { of } = parsed.data;
  const compiled = compile(read.policy, state.outline, state.names);
  const { size, crowd } = crowdsOf(state);
  const bits = await concernedBy(of, read.policy, compiled, state, now);
  if (bits === null)
    return { problems: [{ gate: null, message: 'That is no longer there. Look at the findings again.' }] };
  return {
    of: size,
    people: crowd({ bits, count: countOf(bits) }),
    cut: 'items' in of && of.items.length > MOST_ITEMS,
  };
}

async function concernedBy(
  of: Of,
  policy: Policy,
  compiled: CompiledPolicy,
  state: SiteState,
  now: Date,
): Promise<Bitset | null> {
  const { columns } = await membershipOf(state, compiled.vocabulary, now, [
    ...conditionsOfPolicy(policy),
    ...(of.kind === 'stuck' ? [isEnrolled(of.course)] : []),
  ]);
  const request = plainRequest(state, now);
  const rest = yielder();
  /** Those who get one of some outcomes at an item. */
  const getting = (item: string, wanted: (outcome: Outcome) => boolean): Bitset | null => {
    const sets = peopleByOutcome(compiled, asId(item), columns, request);
    if (!sets) return null;
    const all = emptyBitset(columns.size);
    for (const [outcome, people] of sets) if (wanted(outcome)) addTo(all, people);
    return all;
  };
  const opening = (item: string) => getting(item, (outcome) => outcome === 'open');
  const closedTo = (item: string) => getting(item, (outcome) => outcome !== 'open');
  /** Those of whom a condition is true at an item. */
  const meeting = (who: Condition, item: string): Bitset =>
    columns.select(
      expanded(who, compiled.vocabulary.audiences),
      itemAt(compiled.outline, asId(item)) ?? null,
      request,
    ).bits;
  /** Those who are concerned at one of some items; null where all of these are gone. */
  const atSome = async (items: readonly string[], concerned: (item: string) => Bitset | null) => {
    let all: Bitset | null = null;
    for (const item of items.slice(0, MOST_ITEMS)) {
      const found = concerned(item);
      await rest();
      if (!found) continue;
      if (all === null) all = found;
      else addTo(all, found);
    }
    return all;
  };
  switch (of.kind) {
    case 'difference': {
      const [open, closed] = [opening(of.open), closedTo(of.closed)];
      return open && closed && both(open, closed);
    }
    case 'stuck': {
      const [here, next] = [closedTo(of.item), closedTo(of.next)];
      return here && next && both(meeting(isEnrolled(of.course), of.course), both(here, next));
    }
    case 'turned away':
      return atSome(of.items, closedTo);
    case 'let by': {
      const gates = policy.gates.filter(({ id: one }) => of.gates.includes(one));
      if (gates.length === 0) return null;
      return atSome(of.items, (item) => {
        const open = opening(item);
        return open && gates.reduce((left, { who }) => without(left, meeting(who, item)), open);
      });
    }
    case 'expectation': {
      const expectation = policy.expectations.find((one) => one.id === of.id);
      if (!expectation) return null;
      const { who, claim } = expectation;
      return atSome(of.items, (item) => {
        const wrong = getting(item, (outcome) => !allows(claim, outcome));
        const those = meeting(who, item);
        // Of *only* it is everybody else of whom it speaks.
        return wrong && (claim.kind === 'only opens' ? without(wrong, those) : both(wrong, those));
      });
    }
    case 'nothing open': {
      let left = columns.select(everyone).bits;
      for (const item of compiled.outline.items.values()) {
        if (!isOpenable(item)) continue;
        left = without(left, opening(item.id) ?? emptyBitset(columns.size));
        await rest();
        if (isEmpty(left)) break;
      }
      return left;
    }
    default:
      return of satisfies never;
  }
}

const isEnrolled = (course: string): Test => ({ kind: 'test', fact: 'enrolled', subject: course, op: 'is' });
