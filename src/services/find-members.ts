import type { Member } from '@/core';
import type { Administrator } from './desk-right';
import { memberOf } from './stand-ins';
import type { Trivet } from './trivet';

const MOST = 12;

/** Members whose name or mail address contains a text, whatever its case and accents; the first dozen by name. */
export function findMembers(trivet: Trivet, _administrator: Administrator, text: string): readonly Member[] {
  const wanted = folded(text.slice(0, 200));
  const found: Member[] = [];
  for (const person of trivet.state.people.values()) {
    if (folded(person.name).includes(wanted) || folded(person.email).includes(wanted))
      found.push(memberOf(person));
    if (found.length === MOST) break;
  }
  return found;
}

/** A text without case and accents. */
export const folded = (text: string): string =>
  text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase().trim();
