import { addPlace, asId, type Bitset, emptyBitset, type Member, type PersonId } from '@/core';
import type { SiteState, Trivet } from '../running';
import { type Administrator, memberOf, requirePermission } from '../running';

const MOST = 12;

/** Members whose name or mail address contains a text, whatever its case and accents; the first dozen by name. */
export function findMembers(trivet: Trivet, administrator: Administrator, text: string): readonly Member[] {
  requirePermission(administrator, 'look');
  const { people } = trivet.state;
  const places = placesSaying(people, text.slice(0, 200));
  return [...people.at(some(places, 0, MOST))].map(memberOf);
}

/** The member with an id, as a list of one; empty when there is none. */
export function memberWithId(trivet: Trivet, administrator: Administrator, id: string): readonly Member[] {
  requirePermission(administrator, 'look');
  const person = trivet.state.people.get(asId<PersonId>(id));
  return person ? [memberOf(person)] : [];
}

/** So many of a list from one of them on. */
export function* some<T>(list: Iterable<T>, from: number, most: number): Generator<T> {
  let at = 0;
  for (const one of list) {
    if (at >= from) yield one;
    at += 1;
    if (at >= from + most) return;
  }
}

/** The people whose name or mail address contains a text, whatever its case and accents. */
export function peopleSaying(people: SiteState['people'], text: string): Bitset {
  const bits = emptyBitset(people.size);
  for (const place of placesSaying(people, text)) addPlace(bits, place);
  return bits;
}

/** At which places they stand. */
function* placesSaying(people: SiteState['people'], text: string): Generator<number> {
  const wanted = folded(text);
  const inLine = JSON.stringify(wanted).slice(1, -1);
  let from = 0;
  for (const part of people.parts()) {
    if (folded(part.text).includes(inLine))
      for (const [at, { name, email }] of part.values().entries())
        if (folded(name).includes(wanted) || folded(email).includes(wanted)) yield from + at;
    from += part.size;
  }
}

const PLAIN = /^[\0-\x7f]*$/;

/** A text without case and accents. */
export const folded = (text: string): string =>
  (PLAIN.test(text) ? text : text.normalize('NFD').replace(/\p{M}/gu, '')).toLowerCase().trim();
