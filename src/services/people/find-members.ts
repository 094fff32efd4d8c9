import { asId, type Member, type PersonId } from '@/core';
import type { SiteState, Trivet } from '../running';
import { type Administrator, memberOf, requirePermission, yielder } from '../running';

const MOST = 12;

/** Members whose name or mail address contains a text, whatever its case and accents; the first dozen by name. */
export async function findMembers(
  trivet: Trivet,
  administrator: Administrator,
  text: string,
): Promise<readonly Member[]> {
  requirePermission(administrator, 'look');
  const { people } = trivet.state;
  return [...people.at(await placesSaying(people, text.slice(0, 200), MOST))].map(memberOf);
}

/** The member with an id, as a list of one; empty when there is none. */
export function memberWithId(trivet: Trivet, administrator: Administrator, id: string): readonly Member[] {
  requirePermission(administrator, 'look');
  const person = trivet.state.people.get(asId<PersonId>(id));
  return person ? [memberOf(person)] : [];
}

/** At which places people stand whose name or mail address contains a text, whatever its case and accents. */
export async function placesSaying(
  people: SiteState['people'],
  text: string,
  most = Number.POSITIVE_INFINITY,
): Promise<readonly number[]> {
  const wanted = folded(text);
  const inLine = JSON.stringify(wanted).slice(1, -1);
  const places: number[] = [];
  const rest = yielder();
  let from = 0;
  for (const part of people.parts()) {
    if (folded(part.text).includes(inLine))
      for (const [at, { name, email }] of part.values().entries()) {
        if (!folded(name).includes(wanted) && !folded(email).includes(wanted)) continue;
        if (places.push(from + at) >= most) return places;
      }
    from += part.size;
    await rest();
  }
  return places;
}

const PLAIN = /^[\0-\x7f]*$/;

/** A text without case and accents. */
export const folded = (text: string): string =>
  (PLAIN.test(text) ? text : text.normalize('NFD').replace(/\p{M}/gu, '')).toLowerCase().trim();
