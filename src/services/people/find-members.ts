import { asId, type Member, type PersonId } from '@/core';
import type { Trivet } from '../running';
import { type Administrator, memberOf, requirePermission } from '../running';

const MOST = 12;

/** Members whose name or mail address contains a text, whatever its case and accents; the first dozen by name. */
export function findMembers(trivet: Trivet, administrator: Administrator, text: string): readonly Member[] {
  requirePermission(administrator, 'look');
  const wanted = folded(text.slice(0, 200));
  const found: Member[] = [];
  for (const person of trivet.state.people.values()) {
    if (folded(person.name).includes(wanted) || folded(person.email).includes(wanted))
      found.push(memberOf(person));
    if (found.length === MOST) break;
  }
  return found;
}

/** The member with an id, as a list of one; empty when there is none. */
export function memberWithId(trivet: Trivet, administrator: Administrator, id: string): readonly Member[] {
  requirePermission(administrator, 'look');
  const person = trivet.state.people.get(asId<PersonId>(id));
  return person ? [memberOf(person)] : [];
}

/** A text without case and accents. */
export const folded = (text: string): string =>
  text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase().trim();
