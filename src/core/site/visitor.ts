import type { GroupId, ItemId, LevelId, OrderId, PassphraseId, PersonId, ProductId, RoleId } from '../ids';
import type { Day } from './day';
import type { DeskRight } from './desk-right';
import type { Granted } from './granted';

/** What a profile field holds: a text or choice, a number, a day as text, or yes and no. */
export type FieldValue = string | number | boolean;

export const PURCHASE_STATES = ['paid', 'failed', 'refunded'] as const;
export type PurchaseState = (typeof PURCHASE_STATES)[number];

/** A record of something bought. */
export interface Purchase {
  readonly product: ProductId;
  readonly on: Day;
  /** The last day it is good for; null when it does not end. */
  readonly until: Day | null;
  /** *Failed* is a payment that did not come through, *refunded* one that was given back. */
  readonly state: PurchaseState;
  /** What more is known of what was bought at the till; records that were written by hand have none. */
  readonly order?: Ordered;
}

/** What the till knows of a purchase. */
export interface Ordered {
  readonly id: OrderId;
  /** The last day that is paid for: what is still good after it is late. Null where it does not end. */
  readonly paidUntil: Day | null;
  /** The last day of its trial. */
  readonly trialUntil: Day | null;
  /** When it is paid for again; null where it is not. */
  readonly renews: Day | null;
  readonly voucher: boolean;
}

/** A record of being a learner of a course. */
export interface Enrolment {
  readonly course: ItemId;
  readonly on: Day;
  /** The last day it is good for; null when it does not end. One that has ended is none. */
  readonly until: Day | null;
  /** The group or the product through which they are in it; those who were enrolled by hand have none. */
  readonly through?: GroupId | ProductId;
}

/** A record of something done: of an activity, a unit or a course. */
export interface Completion {
  readonly item: ItemId;
  readonly on: Day;
  readonly score: number | null;
}

/** Whether something that may end is still good on a day: its last day is one. */
export const isGoodOn = ({ until }: { readonly until: Day | null }, day: Day): boolean =>
  until === null || until >= day;

/** Whether a purchase is somebody's on a day: paid, begun, and not past its end. */
export const isHeldOn = (purchase: Purchase, day: Day): boolean =>
  purchase.state === 'paid' && purchase.on <= day && isGoodOn(purchase, day);

/** Whether an enrolment is under way on a day. */
export const isEnrolledOn = (enrolment: Enrolment, day: Day): boolean =>
  enrolment.on <= day && isGoodOn(enrolment, day);

const completed = new WeakMap<readonly Completion[], ReadonlySet<string>>();

/** Whether something is among what somebody has completed: found at once, however much that is. */
export function isCompleted(completions: readonly Completion[], item: string): boolean {
  const found = completed.get(completions) ?? new Set(completions.map((one) => one.item as string));
  completed.set(completions, found);
  return found.has(item);
}

/**
 * What is known of a visitor. `null` means *not known*, which is not the same as *none*: a guest may well be
 * in a group, but nobody knows, so a test on a guest's groups is unknown. A member's roles, groups, purchases,
 * enrolments and completions are always known, if only as empty lists. A member's level is `null` when they have none.
 * Roles, groups and level are those that were given by hand; those that purchases give are in `granted`.
 */
export interface VisitorFacts {
  readonly signedIn: boolean;
  readonly id: PersonId | null;
  /** In lower case. */
  readonly email: string | null;
  readonly roles: readonly RoleId[] | null;
  readonly groups: readonly GroupId[] | null;
  readonly level: LevelId | null;
  /** By field id. A field that nobody filled in has no entry. */
  readonly profile: Readonly<Record<string, FieldValue>> | null;
  readonly purchases: readonly Purchase[] | null;
  /** What those purchases give beside that, each with its time. What is held at a moment is read with `levelAt` and its like. */
  readonly granted: readonly Granted[];
  readonly joined: Day | null;
  readonly enrolments: readonly Enrolment[] | null;
  readonly completions: readonly Completion[] | null;
  /** Those typed in this session: known of guests as well. */
  readonly passphrases: readonly PassphraseId[];
  /** What they may do at the desk, on the whole site or on a branch; `null` for nothing. */
  readonly desk: DeskRight | null;
  /** Where the visitor falls in the keyed hash that shares are cut from: at least 0, below 100. */
  readonly share: number | null;
}

/** Somebody who is not signed in: nothing else is known of them. */
export const guest: VisitorFacts = {
  signedIn: false,
  id: null,
  email: null,
  roles: null,
  groups: null,
  level: null,
  profile: null,
  purchases: null,
  granted: [],
  joined: null,
  enrolments: null,
  completions: null,
  passphrases: [],
  desk: null,
  share: null,
};

/** What somebody has who has nothing yet. */
export const nothingHeld = {
  level: null,
  roles: [],
  groups: [],
  profile: {},
  joined: null,
  purchases: [],
  enrolments: [],
  completions: [],
} as const;

const nobodyYet: VisitorFacts = { ...guest, signedIn: true, ...nothingHeld };

/** A signed-in member with the given facts; what is left out is known to be none. */
export const member = (facts: Partial<Omit<VisitorFacts, 'signedIn'>> = {}): VisitorFacts => ({
  ...nobodyYet,
  ...facts,
});
