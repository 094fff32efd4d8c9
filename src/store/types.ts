/** The shapes that are stored as JSON, so that the schema can name them without the migration tool following core. */

import type { Policy } from '../core/policy/policy';
import type { ItemFacts, LinkTarget } from '../core/site/item';
import type { FieldValue } from '../core/site/visitor';
import type { SiteNames } from '../core/site/vocabulary';
import type { PersonRecord } from './person-record';

export type { FieldValue, ItemFacts, LinkTarget, Policy, SiteNames };

/** A stand-in as it is stored: a reference, never a copy of a person's facts. */
export type StandInRef = 'guest' | { readonly person: string };

/** One person before and after a change; null for one who was not there yet, or is no longer. */
export interface PeopleChange {
  readonly before: PersonRecord | null;
  readonly after: PersonRecord | null;
}

/** What was kept of passwords and passphrases, by person and by passphrase. */
export interface Hashes {
  readonly people: Readonly<Record<string, string>>;
  readonly passphrases: Readonly<Record<string, string>>;
}
