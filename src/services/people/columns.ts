/** The membership as columns, made when first asked and kept until people, names or the day change. */
import {
  type Columns,
  type Condition,
  columnsOf,
  expanded,
  type Member,
  placesIn,
  type Subset,
  type Vocabulary,
} from '@/core';
import type { SiteState } from '../running';
import { memberOf, plainRequest } from '../running';

interface Membership {
  readonly names: SiteState['names'];
  readonly today: string;
  readonly members: readonly Member[];
  readonly columns: Columns;
}

const kept = new WeakMap<SiteState['people'], Membership>();

/** The members in order, and the sets of them that conditions select. */
export interface MembershipView {
  readonly members: readonly Member[];
  readonly columns: Columns;
  readonly select: (condition: Condition) => Subset;
  /** The members of a set, the first so many of them. */
  readonly named: (bits: Subset['bits'], most?: number) => readonly Member[];
}

/** The membership of a site, asked with the names of one of its policies. */
export function membershipOf(state: SiteState, vocabulary: Vocabulary, now: Date): MembershipView {
  const request = plainRequest(state, now);
  const made = (): Membership => {
    const members = [...state.people.values()].map(memberOf);
    const facts = members.map((one) => one.facts);
    const names = { ...state.names, audiences: [] };
    return { names: state.names, today: request.today, members, columns: columnsOf(facts, names, request) };
  };
  let membership = kept.get(state.people);
  if (membership?.names !== state.names || membership.today !== request.today) {
    membership = made();
    kept.set(state.people, membership);
  }
  const { members, columns } = membership;
  return {
    members,
    columns,
    // The time of day runs on while columns are kept, so the request at hand is asked for it.
    select: (condition) => columns.select(expanded(condition, vocabulary.audiences), null, request),
    named: (bits, most = Number.POSITIVE_INFINITY) => {
      const found: Member[] = [];
      for (const place of placesIn(bits)) {
        if (found.length >= most) break;
        const one = members[place];
        if (one) found.push(one);
      }
      return found;
    },
  };
}

export const MOST_NAMED = 8;

/** How many people, and the first of them by name. */
export interface Crowd {
  readonly count: number;
  readonly first: readonly Member[];
}

/** Makes crowds of sets of the membership. */
export function crowdsOf(
  state: SiteState,
  now: Date,
): { readonly size: number; readonly crowd: (selection: Subset) => Crowd } {
  const { members, named } = membershipOf(state, state.live.compiled.vocabulary, now);
  return {
    size: members.length,
    crowd: ({ bits, count }) => ({ count, first: count === 0 ? [] : named(bits, MOST_NAMED) }),
  };
}
