/** The shapes that are stored as JSON, so that the schema can name them without the migration tool following core. */

import type { Policy } from '../core/policy/policy';
import type { ItemFacts, LinkTarget, SectionType } from '../core/site/item';
import type { FieldValue } from '../core/site/visitor';
import type { SiteNames } from '../core/site/vocabulary';
import type { PersonRecord } from './person-record';
import type { RemovedItems } from './removed-items';
import type { SectionContent } from './section-content';

export type {
  FieldValue,
  ItemFacts,
  LinkTarget,
  Policy,
  RemovedItems,
  SectionContent,
  SectionType,
  SiteNames,
};

/** A page or post as it is being written: everything that its editor shows. Checked when it goes to the site. */
export type DraftDocument = Readonly<Record<string, unknown>>;

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
