/** The membership as columns, made when first asked and kept until people, names or the day change. */
import {
  type Bitset,
  type Columns,
  type Condition,
  columnsOf,
  expanded,
  type Member,
  placesIn,
  type SiteNames,
  type Subset,
  type VisitorFacts,
  type Vocabulary,
} from '@/core';
import type { SiteState } from '../running';
import { memberOf, plainRequest, yielder } from '../running';

interface Membership {
  readonly names: SiteNames;
  readonly today: string;
  readonly columns: Columns;
}

interface Kept extends Omit<Membership, 'columns'> {
  readonly made: Promise<Columns>;
}

const kept = new WeakMap<SiteState['people'], Kept>();
/** The facts of a part of the people, for as long as nothing in it has changed. */
const factsOf = new WeakMap<object, readonly VisitorFacts[]>();

/** The members in order, and the sets of them that conditions select. */
export interface MembershipView {
  readonly size: number;
  readonly columns: Columns;
  readonly select: (condition: Condition) => Subset;
  /** The members of a set, the first so many of them. */
  readonly named: (bits: Subset['bits'], most: number) => readonly Member[];
}

/** The membership of a site, asked with the names of one of its policies. Others get their turn while it is read. */
export async function membershipOf(
  state: SiteState,
  vocabulary: Vocabulary,
  now: Date,
): Promise<MembershipView> {
  const { people, names } = state;
  const request = plainRequest(state, now);
  let known = kept.get(people);
  if (known?.names !== names || known.today !== request.today) {
    const made = factsOfAll(people).then((facts) => columnsOf(facts, { ...names, audiences: [] }, request));
    known = { names, today: request.today, made };
    kept.set(people, known);
    made.catch(() => kept.delete(people));
  }
  const columns = await known.made;
  return {
    size: people.size,
    columns,
    // The time of day runs on while columns are kept, so the request at hand is asked for it.
    select: (condition) => columns.select(expanded(condition, vocabulary.audiences), null, request),
    named: (bits, most) => namedIn(state, bits, most),
  };
}

async function factsOfAll(people: SiteState['people']): Promise<readonly VisitorFacts[]> {
  const all: VisitorFacts[] = [];
  const rest = yielder();
  for (const { of, values } of people.parts()) {
    let facts = factsOf.get(of);
    if (!facts) {
      facts = values().map((person) => person.facts);
      factsOf.set(of, facts);
      await rest();
    }
    for (const one of facts) all.push(one);
  }
  return all;
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
