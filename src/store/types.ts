/** The shapes that are stored as JSON, so that the schema can name them without the migration tool following core. */

import type { Policy } from '../core/policy/policy';
import type { LinkTarget } from '../core/site/item';

export type { LinkTarget, Policy };

/** A stand-in as it is stored: a reference, never a copy of a person's facts. */
export type StandInRef = 'guest' | { readonly person: string };
