/** Who gets what stands somewhere: the members and the guests who get an item, and each part of its text. */
import {
  addTo,
  type Bitset,
  both,
  breakdownOf,
  type Condition,
  conditionsOfPolicy,
  counted,
  countOf,
  decide,
  decidedForAll,
  emptyBitset,
  everyone,
  guest,
  type Item,
  type ItemId,
  isShared,
  listed,
  onceFor,
  type Piece,
  type RequestFacts,
  representativesOf,
  without,
} from '@/core';
import { type MembershipView, membershipOf } from '../people';
import { plainRequest, type SiteState } from '../running';
import { readyFor, regionsIn } from '../view';

/** Some visitors: members, and whether guests who bring nothing are among them. */
export interface Audience {
  readonly people: Bitset;
  readonly guests: boolean;
}

export interface Audiences {
  /** Those who get an item, as it is live, today. */
  readonly getting: (item: ItemId) => Audience;
  /** The texts that an item's text comes to, with those of its readers who get each. */
  readonly textsTo: (
    item: Item,
    body: string,
    to: Audience,
  ) => Iterable<{ readonly text: string; readonly to: Audience }>;
}

export async function audiencesOf(state: SiteState, now: Date): Promise<Audiences> {
  const { policy, compiled } = state.live;
  const membership = await membershipOf(state, compiled.vocabulary, now, conditionsOfPolicy(policy));
  const request = plainRequest(state, now);
  const split = splitter(state, membership, request);
  const everybody: Audience = { people: membership.select(everyone).bits, guests: true };
  const nobodyAtAll: Audience = { people: emptyBitset(membership.size), guests: false };
  // Of items at which everybody gets the same, one is asked for all: a set of everybody is as large as there are people.
  const alike = new Map<ItemId, ItemId>();
  for (const { item, items } of representativesOf(compiled)) for (const id of items) alike.set(id, item);
  const gettingOne = onceFor((item: ItemId): Audience => {
    const breakdown = breakdownOf(compiled, item, membership.columns, request);
    return {
      people: breakdown?.open.bits ?? emptyBitset(membership.size),
      guests: decide(compiled, item, guest, request).kind === 'open',
    };
  });
  return {
    getting(id) {
      const settled = decidedForAll(compiled, id);
      if (settled) return settled.kind === 'open' ? everybody : nobodyAtAll;
      // A shared section is got wherever its hosts are.
      return gettingOne(isShared(compiled.outline.items.get(id)) ? id : (alike.get(id) ?? id));
    },
    textsTo: (item, body, to) =>
      textsTo(
        regionsIn(compiled, body, isShared(item)).pieces,
        to,
        split,
        // A region of a shared section may ask about its host: whoever gets the section may get it.
        isShared(item) ? to : null,
      ),
  };
}

/** Those of both; nobody at all where the first is not given. */
export function joined(one: Audience | undefined, other: Audience): Audience {
  if (!one) return other;
  const people = one.people.slice();
  addTo(people, other.people);
  return { people, guests: one.guests || other.guests };
}

/** Those of some visitors of whom a condition is true, and the others. */
type Split = (audience: Audience, when: Condition) => { readonly those: Audience; readonly rest: Audience };

const splitter =
  ({ live }: SiteState, { select }: MembershipView, request: RequestFacts): Split =>
  (audience, when) => {
    const { bits } = select(when);
    const isGuests = readyFor(live.compiled, when)(guest, null, request);
    return {
      those: { people: both(audience.people, bits), guests: audience.guests && isGuests },
      rest: { people: without(audience.people, bits), guests: audience.guests && !isGuests },
    };
  };

/** The texts of pieces, with those who get each. */
function* textsTo(
  pieces: readonly Piece[],
  to: Audience,
  split: Split,
  within: Audience | null,
): Generator<{ readonly text: string; readonly to: Audience }> {
  for (const piece of pieces) {
    if (piece.kind === 'text') {
      yield { text: piece.text, to: within ?? to };
      continue;
    }
    let left = to;
    for (const { when, pieces: inner } of piece.cases) {
      const { those, rest } = split(left, when);
      yield* textsTo(inner, those, split, within);
      left = rest;
    }
    yield* textsTo(piece.last, left, split, within);
  }
}

/** Those who are in one audience and not in another, in words: "guests and 3 members"; null for nobody. */
export function butFor(one: Audience, other: Audience): string | null {
  const members = countOf(without(one.people, other.people));
  const parts = [
    ...(one.guests && !other.guests ? ['guests'] : []),
    ...(members > 0 ? [counted(members, 'member')] : []),
  ];
  return parts.length === 0 ? null : listed(parts);
}
