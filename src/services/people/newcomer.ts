import { nothingHeld, type PersonId } from '@/core';
import type { PersonRecord } from '@/store';

/** Somebody who has just come, with nothing that opens anything. */
export const newcomer = (
  id: PersonId,
  { email, name }: { readonly email: string; readonly name: string },
  joined: string,
): PersonRecord => ({ id, email, name, desk: null, ...nothingHeld, groupsSince: {}, joined });
