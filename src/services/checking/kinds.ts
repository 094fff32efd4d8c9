/** The members, by kind: put together where the site treats them alike at every item. */
import {
  asId,
  type Bitset,
  both,
  compile,
  conditionsOfPolicy,
  countOf,
  decide,
  everyone,
  guest,
  hasPlace,
  isEmpty,
  type Outcome,
  outcomeOf,
  type PersonId,
  peopleByOutcome,
  representativesOf,
} from '@/core';
import { type Crowd, MOST_NAMED, membershipOf } from '../people';
import { type PolicyProblem, readPolicy } from '../policy';
import type { Trivet } from '../running';
import { type Administrator, plainRequest, requirePermission, yielder } from '../running';

/** A kind that somebody is of now. */
export interface PeopledKind {
  /** What they get at each representative (`representativesOf`). */
  readonly gets: readonly Outcome[];
  /** The members who are of it. */
  readonly people: Crowd;
  /** Whether guests who bring nothing are of it. */
  readonly guests: boolean;
  /** Whether it is the kind of the person who was asked about. */
  readonly asked: boolean;
}

export interface KindsReport {
  readonly of: number;
  /** In the order of how many members they have; the guests' first. */
  readonly kinds: readonly PeopledKind[];
  /** Whether there were more than are listed. */
  readonly cut: boolean;
}

const MOST_KINDS = 1000;

/** Splits the membership by what each gets under a policy, now. `person` is somebody whose kind is asked for. */
export async function kindsReport(
  trivet: Trivet,
  administrator: Administrator,
  input: { readonly policy: unknown; readonly person: string | null },
  now: Date,
): Promise<KindsReport | { readonly problems: readonly PolicyProblem[] }> {
  requirePermission(administrator, 'look');
  const { state } = trivet;
  const read = readPolicy(input.policy, state);
  if ('problems' in read) return read;
  const rest = yielder();
  const compiled = compile(read.policy, state.outline, state.names);
  await rest();
  const { columns, size, named } = await membershipOf(
    state,
    compiled.vocabulary,
    now,
    conditionsOfPolicy(read.policy),
  );
  const request = plainRequest(state, now);
  let parts: readonly { readonly gets: readonly Outcome[]; readonly bits: Bitset }[] = [
    { gets: [], bits: columns.select(everyone).bits },
  ];
  const representatives = representativesOf(compiled);
  for (const { item } of representatives) {
    const sets = peopleByOutcome(compiled, item, columns, request) ?? [];
    const next: { gets: readonly Outcome[]; bits: Bitset }[] = [];
    for (const { gets, bits } of parts) {
      for (const [outcome, those] of sets) {
        const part = both(bits, those);
        if (!isEmpty(part)) next.push({ gets: [...gets, outcome], bits: part });
      }
      await rest();
    }
    parts = next;
  }
  const guests = representatives.map(({ item }) => outcomeOf(decide(compiled, item, guest, request)));
  const place = input.person === null ? undefined : state.people.placeOf(asId<PersonId>(input.person));
  const kinds = parts
    .filter(({ bits }) => !isEmpty(bits))
    .map(
      ({ gets, bits }): PeopledKind => ({
        gets,
        people: { count: countOf(bits), first: named(bits, MOST_NAMED) },
        guests: gets.join() === guests.join(),
        asked: place !== undefined && hasPlace(bits, place),
      }),
    )
    .toSorted((a, b) => b.people.count - a.people.count);
  const withGuests = kinds.some((one) => one.guests)
    ? kinds
    : [{ gets: guests, people: { count: 0, first: [] }, guests: true, asked: false }, ...kinds];
  return { of: size, kinds: withGuests.slice(0, MOST_KINDS), cut: withGuests.length > MOST_KINDS };
}
