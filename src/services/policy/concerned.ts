/** Whom a finding or a broken expectation concerns today, in numbers and first names. */
import { z } from 'zod';
import {
  addTo,
  allows,
  asId,
  type Bitset,
  both,
  type CompiledPolicy,
  compile,
  conditionsOfPolicy,
  countOf,
  emptyBitset,
  everyone,
  expanded,
  type ItemId,
  itemAt,
  type Outcome,
  type Policy,
  peopleByOutcome,
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
  const { columns } = await membershipOf(state, compiled.vocabulary, now, conditionsOfPolicy(policy));
  const request = plainRequest(state, now);
  const rest = yielder();
  /** Those who get one of some outcomes at an item. */
  const getting = (item: ItemId, wanted: (outcome: Outcome) => boolean): Bitset | null => {
    const sets = peopleByOutcome(compiled, item, columns, request);
    if (!sets) return null;
    const all = emptyBitset(columns.size);
    for (const [outcome, people] of sets) if (wanted(outcome)) addTo(all, people);
    return all;
  };
  if (of.kind === 'difference') {
    const open = getting(asId(of.open), (outcome) => outcome === 'open');
    const closed = getting(asId(of.closed), (outcome) => outcome !== 'open');
    return open && closed && both(open, closed);
  }
  const expectation =
    of.kind === 'expectation' ? policy.expectations.find((one) => one.id === of.id) : undefined;
  if (of.kind === 'expectation' && !expectation) return null;
  let all: Bitset | null = null;
  for (const one of of.items.slice(0, MOST_ITEMS)) {
    const item = asId<ItemId>(one);
    const wrong = getting(item, (outcome) =>
      expectation ? !allows(expectation.claim, outcome) : outcome !== 'open',
    );
    await rest();
    if (!wrong) continue;
    const found = expectation ? both(wrong, meant(expectation, item)) : wrong;
    if (all === null) all = found;
    else addTo(all, found);
  }
  return all;

  /** Those of whom an expectation speaks at an item: of *only* it is everybody else. */
  function meant({ who, claim }: Policy['expectations'][number], item: ItemId): Bitset {
    const those = columns.select(
      expanded(who, compiled.vocabulary.audiences),
      itemAt(compiled.outline, item) ?? null,
      request,
    ).bits;
    if (claim.kind !== 'only opens') return those;
    return without(columns.select(everyone).bits, those);
  }
}
