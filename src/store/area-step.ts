/** What one step does to areas: both sides of everything that it touches. */
import type { GroupId, PersonId } from '../core/ids';
import type { Policy } from '../core/policy/policy';
import type { Item } from '../core/site/item';
import type { KeptNames } from '../core/site/vocabulary';
import type { Content } from './content';
import type { PersonRecord } from './person-record';

interface StoredItem {
  readonly item: Item;
  readonly content: Content;
}

/** Something before a step and after it; null where it is not there. */
interface Sides<T> {
  readonly before: T | null;
  readonly after: T | null;
}

export interface MemberStep {
  readonly person: PersonId;
  readonly group: GroupId;
  readonly in: boolean;
  /** From when on they are in it, or were until now; null where that is not known. */
  readonly since: string | null;
}

export interface AreaStep {
  readonly items: readonly Sides<StoredItem>[];
  readonly groups: readonly Sides<KeptNames['groups'][number]>[];
  /** Accounts that it makes or ends. */
  readonly accounts: readonly Sides<PersonRecord>[];
  /** Who comes into a group by it, or leaves it; whoever is made with it has it already. */
  readonly members: readonly MemberStep[];
  readonly draft: { readonly before: Policy; readonly after: Policy };
  readonly live: { readonly before: Policy; readonly after: Policy };
}
