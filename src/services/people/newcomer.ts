import { nothingHeld, type PersonId } from '@/core';
import type { PersonRecord } from '@/store';
import type { Person, SiteState } from '../running';

/** Somebody who has just come, with nothing that opens anything. */
export const newcomer = (
  id: PersonId,
  { email, name }: { readonly email: string; readonly name: string },
  joined: string,
): PersonRecord => ({ id, email, name, desk: null, ...nothingHeld, groupsSince: {}, joined });

/** Whoever has a mail address: one mailbox is one account. */
export const personWithMail = ({ people }: SiteState, email: string): Person | undefined =>
  [...people.values()].find((one) => one.email === email);
