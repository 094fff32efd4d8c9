import { nothingHeld, type PersonId } from '@/core';
import { type PersonRecord, saysMail } from '@/store';
import type { Person, SiteState } from '../running';

/** Somebody who has just come, with nothing that opens anything. */
export const newcomer = (
  id: PersonId,
  { email, name }: { readonly email: string; readonly name: string },
  joined: string,
): PersonRecord => ({ id, email, name, desk: null, ...nothingHeld, groupsSince: {}, joined });

/** Whoever has a mail address: one mailbox is one account. */
export function personWithMail({ people }: SiteState, email: string): Person | undefined {
  const said = saysMail(email);
  for (const { text, values } of people.parts()) {
    const found = text.includes(said) && values().find((one) => one.email === email);
    if (found) return found;
  }
  return undefined;
}
