/** What changes at items that stand alike. */
import type { Subset } from '../columns';
import type { ItemId } from '../ids';
import { guest, type Item, type RequestFacts } from '../site';
import type { CompiledPolicy } from './compile';
import { decide } from './decide';
import { type Decision, sameToVisitor } from './decision';
import type { GateTally, Membership, Select } from './transition';

/** What changes at items that stand alike: the same people notice the same at each of them. */
export interface Shift {
  /** In the order of the outline; a shared section stands for all the hosts on which it is so. */
  readonly items: readonly Item[];
  /** Of each shared section among them, on how many of its hosts somebody notices it. */
  readonly hosts: ReadonlyMap<ItemId, number>;
  readonly gains: Subset;
  readonly loses: Subset;
  /** People who were and stay turned away, but now get something else. */
  readonly sees: Subset;
  /** What guests got and will get, when a guest would notice a difference. */
  readonly guests: { readonly before: Decision; readonly after: Decision } | null;
}

/** Who is asked, and of whom what is found is noted. */
export interface Asking {
  readonly membership: Membership;
  readonly select: Select;
  readonly tally: GateTally;
  readonly request: RequestFacts;
}

/** Items at which the same changes, and what that is. */
export interface Group {
  readonly items: readonly Item[];
  readonly shiftFor: (asking: Asking) => Omit<Shift, 'items'>;
}

/** What guests get before and after at an item; null where they would notice no difference. */
export const guestsAt = (
  before: CompiledPolicy,
  after: CompiledPolicy,
  id: ItemId,
  request: RequestFacts,
): Shift['guests'] => noticed(decide(before, id, guest, request), decide(after, id, guest, request));

export const noticed = (before: Decision, after: Decision): Shift['guests'] =>
  sameToVisitor(before, after) ? null : { before, after };
