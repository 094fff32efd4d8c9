import type { Day } from '../../site/day';
import type { Item } from '../../site/item';
import type { RequestFacts } from '../../site/request';
import type { FieldValue, VisitorFacts } from '../../site/visitor';
import type { NameKind, Vocabulary } from '../../site/vocabulary';
import type { FactType, Met } from '../operators';

/** Reads a fact, or null where it is missing. */
export type Reader = (visitor: VisitorFacts, item: Item | null, request: RequestFacts) => Met | null;

/** What a fact is to become, so that a test comes out as wanted. */
export interface Wanted {
  /** The id of what the fact is of; empty for facts that are of nothing. */
  readonly subject: string;
  /** The id that is asked for, for sets. */
  readonly value: string;
  readonly holds: boolean;
  /** A value with which the test comes out so; null for none at all. */
  readonly met: FieldValue | null;
  readonly today: Day;
}

interface Entry {
  /** How the composer names it. */
  readonly label: string;
  /** How it begins in the text form; its name where that is the same. */
  readonly phrase?: string;
  /** Its type; null for profile fields, which have their own. */
  readonly type: FactType | null;
  /** What it is a fact of, where that needs saying: a thing with a name, or any text (`'text'`). */
  readonly subject?: NameKind | 'text';
  /** The kind of thing that its values are, for sets and ranks. */
  readonly values?: NameKind;
  /** The values there are, for choices that are the same on every site. */
  readonly choices?: readonly string[];
  /** Whether visitors can make it up, so that it is fit for presentation and not for protection. */
  readonly fakeable?: boolean;
  /** Never named in a reason that visitors read. */
  readonly private?: boolean;
  /** Brought by the session rather than the account, so that it is known of guests and can't be counted over members. */
  readonly session?: boolean;
  /** Always there, so that nobody asks whether it is. */
  readonly always?: boolean;
  /** Joined to people with "whose" in a sentence rather than with "who". */
  readonly whose?: boolean;
  /** What is said of it where it is missing; "not known" where nothing is given. */
  readonly absent?: string;
  readonly read: (subject: string, vocabulary: Vocabulary) => Reader;
  /** A member with the fact as wanted, for facts that can come about: by joining, buying, filling in, learning. */
  readonly assume?: (member: VisitorFacts, wanted: Wanted) => VisitorFacts;
}

/** What it is a fact of; of a visitor and an item together, with all that it depends on of the item. */
type Of =
  | { readonly of: 'visitor' | 'item' | 'request' }
  | { readonly of: 'visitor and item'; readonly dependsOn: (item: Item) => string | null };

/** What the catalogue says of one fact. */
export type FactEntry = Entry & Of;
