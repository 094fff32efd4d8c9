/** The membership as columns, made when first asked and kept until people, names or the day change. */
import {
  type Bitset,
  type Columns,
  type Condition,
  columnsOf,
  expanded,
  type Member,
  type Part,
  placesIn,
  type RequestFacts,
  type SiteNames,
  type Subset,
  type VisitorFacts,
  type Vocabulary,
} from '@/core';
import type { Person, SiteState } from '../running';
import { inTurns, memberOf, plainRequest, yielder } from '../running';

/** Everybody's facts in order, the parts of the people that they are of, and their columns. */
interface Membership {
  readonly parts: readonly Part<Person>[];
  readonly facts: readonly VisitorFacts[];
  readonly columns: Columns;
}

interface Kept {
  readonly people: SiteState['people'];
  readonly names: SiteNames;
  readonly today: string;
  readonly made: Promise<Membership>;
}

/** What was made last, for people as they are and as they were. */
const kept = new WeakMap<object, Kept>();
const forgetting = new WeakMap<object, NodeJS.Timeout>();
/** For so long, in milliseconds, it is kept when nobody asks: it takes several times what the people take themselves. */
const KEPT_MS = 10 * 60_000;

/** The members in order, and the sets of them that conditions select. */
export interface MembershipView {
  readonly size: number;
  readonly columns: Columns;
  readonly select: (condition: Condition) => Subset;
  /** The members of a set, the first so many of them. */
  readonly named: (bits: Subset['bits'], most: number) => readonly Member[];
}

/**
 * The membership of a site, asked with the names of one of its policies. What conditions ask for that are given is ready
 * afterwards; others get their turn while it is made.
 */
export async function membershipOf(
  state: SiteState,
  vocabulary: Vocabulary,
  now: Date,
  asks: readonly Condition[] = [],
): Promise<MembershipView> {
  const request = plainRequest(state, now);
  const { columns } = await membershipAt(state, request);
  await inTurns(columns.ready(asks.map((condition) => expanded(condition, vocabulary.audiences))));
  return {
    size: state.people.size,
    columns,
    // The time of day runs on while columns are kept, so the request at hand is asked for it.
    select: (condition) => columns.select(expanded(condition, vocabulary.audiences), null, request),
    named: (bits, most) => namedIn(state, bits, most),
  };
}

function membershipAt({ people, names }: SiteState, request: RequestFacts): Promise<Membership> {
  const { lineage } = people;
  const { today } = request;
  clearTimeout(forgetting.get(lineage));
  forgetting.set(lineage, forgetLater(new WeakRef(lineage)));
  const last = kept.get(lineage);
  const isSame = last?.names === names && last.today === today;
  if (last && isSame && last.people === people) return last.made;
  const made = (last?.made ?? Promise.resolve(null)).then(async (before): Promise<Membership> => {
    const after = await factsOfAll(people, before);
    const columns =
      before && isSame && after.changed
        ? before.columns.changed(after.facts, after.changed)
        : columnsOf(after.facts, { ...names, audiences: [] }, request);
    return { parts: after.parts, facts: after.facts, columns };
  });
  kept.set(lineage, { people, names, today, made });
  made.catch(() => kept.delete(lineage));
  return made;
}

/** People who are no longer there are not kept for this. */
const forgetLater = (lineage: WeakRef<object>): NodeJS.Timeout =>
  setTimeout(() => {
    const of = lineage.deref();
    if (of) kept.delete(of);
  }, KEPT_MS).unref();

/** Everybody's facts: of parts that were known before, those that were; and at which places others stand, where all stand as they did. */
async function factsOfAll(people: SiteState['people'], before: Membership | null) {
  const parts = people.parts();
  const rest = yielder();
  const stands =
    before?.parts.length === parts.length && parts.every(({ size }, at) => size === before.parts[at]?.size);
  const known = new Map<object, number>();
  let from = 0;
  for (const { of, size } of before?.parts ?? []) {
    known.set(of, from);
    from += size;
  }
  const facts: VisitorFacts[] = before && stands ? before.facts.slice() : [];
  const changed: number[] = [];
  let place = 0;
  for (const { of, size, values } of parts) {
    const was = known.get(of);
    if (was === undefined) {
      for (const [at, person] of values().entries()) {
        facts[place + at] = person.facts;
        changed.push(place + at);
      }
      await rest();
    } else if (!stands)
      for (let at = 0; at < size; at++) facts[place + at] = before?.facts[was + at] as VisitorFacts;
    place += size;
  }
  return { parts, facts, changed: stands ? changed : null };
}

function namedIn({ people }: SiteState, bits: Bitset, most: number): readonly Member[] {
  const found: Member[] = [];
  if (most === 0) return found;
  for (const person of people.at(placesIn(bits))) if (found.push(memberOf(person)) === most) break;
  return found;
}

export const MOST_NAMED = 8;

/** How many people, and the first of them by name. */
export interface Crowd {
  readonly count: number;
  readonly first: readonly Member[];
}

/** Makes crowds of sets of the membership. */
export function crowdsOf(state: SiteState): {
  readonly size: number;
  readonly crowd: (selection: Subset) => Crowd;
} {
  return {
    size: state.people.size,
    crowd: ({ bits, count }) => ({ count, first: count === 0 ? [] : namedIn(state, bits, MOST_NAMED) }),
  };
}
