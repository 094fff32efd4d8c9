/** The shapes that are stored as JSON, so that the schema can name them without the migration tool following core. */

import type { Answer } from '../core/course/answering';
import type { Asked } from '../core/course/drawing';
import { HAND_IN_STATES } from '../core/course/hand-in';
import type { Ranges } from '../core/course/played';
import type { ItemId } from '../core/ids';
import type { Policy } from '../core/policy/policy';
import type { Notice } from '../core/selling/notice';
import type { Agreed, OrderState } from '../core/selling/order-state';
import type { ProductTerms } from '../core/selling/terms';
import type { GuestChange } from '../core/sentence/for-guests';
import { DESK_RIGHTS, type DeskGrant } from '../core/site/desk-right';
import type { ItemFacts, LinkTarget } from '../core/site/item';
import {
  ACTIVITY_TYPES,
  DONE_WHENS,
  ITEM_KINDS,
  MENU_PLACES,
  SECTION_TYPES,
  type SectionType,
} from '../core/site/kinds';
import type { Device } from '../core/site/request';
import type { Shared } from '../core/site/shared';
import type { MadeUp } from '../core/site/stand-in';
import { type FieldValue, PURCHASE_STATES } from '../core/site/visitor';
import { type KeptNames, PRODUCT_KINDS } from '../core/site/vocabulary';
import type { AreaStep } from './area-step';
import type { PersonRecord } from './person-record';
import type { RemovedItems } from './removed-items';
import type { SectionContent } from './section-content';
import type { SiteLetters, SiteLook, SiteStarts, SiteWords } from './site-wishes';
import type { TakenOver } from './taken-over';

export type {
  Agreed,
  Answer,
  AreaStep,
  Asked,
  FieldValue,
  ItemFacts,
  KeptNames,
  LinkTarget,
  Notice,
  OrderState,
  Policy,
  ProductTerms,
  Ranges,
  RemovedItems,
  SectionContent,
  SectionType,
  Shared,
  SiteLetters,
  SiteLook,
  SiteStarts,
  SiteWords,
  TakenOver,
};
export {
  ACTIVITY_TYPES,
  DESK_RIGHTS,
  type DeskGrant,
  DONE_WHENS,
  HAND_IN_STATES,
  ITEM_KINDS,
  MENU_PLACES,
  PRODUCT_KINDS,
  PURCHASE_STATES,
  SECTION_TYPES,
};

/** Something that is left to ask of the till about an order. */
export type DueStep =
  /** What was paid, because it can't be given. */
  | { readonly kind: 'give back'; readonly amount: number; readonly why: string }
  | { readonly kind: 'give back twice'; readonly notice: string; readonly amount: number }
  /** That it can't be paid any more: another one took its place. */
  | { readonly kind: 'withdraw' }
  /** The order whose plan it took the place of. */
  | ({ readonly kind: 'end replaced' } & Replaced);

/** An order whose plan another takes the place of, and when. */
export interface Replaced {
  readonly order: string;
  readonly when: 'now' | 'at the end';
}

/** For how many days nothing is paid at the start of an order, and whether that is a trial. */
export interface FreeAtFirst {
  readonly freeDays: number;
  readonly trial: boolean;
}

/** A page or post as it is being written: everything that its editor shows. Checked when it goes to the site. */
export type DraftDocument = Readonly<Record<string, unknown>>;

/** A stand-in as it is stored: a member by reference, never with a copy of their facts; a made-up one whole. */
export type StandInRef = 'guest' | { readonly person: string } | { readonly madeUp: MadeUp };

/** What is set for a walk: when it is, by the site's clock, and what the visitor's browser says. */
export interface WalkScene {
  /** "2026-12-24T18:30"; the present when it is left out. */
  readonly at?: string;
  readonly device?: Device;
  /** A host. */
  readonly referrer?: string;
  readonly language?: string;
}

export const JOURNAL_KEEPS = ['off', 'counts', 'names'] as const;
/** What the journal keeps: nothing, counts alone, or also which members were turned away. */
export type JournalKeeps = (typeof JOURNAL_KEEPS)[number];

/** Who may make an account: anybody, whoever has a mail address at one of some domains, or only who is written down already. */
export const SIGN_UPS = ['anybody', 'domains', 'invited'] as const;

export type SignUp = (typeof SIGN_UPS)[number];

/**
 * What has become of a letter: it is still to be sent; it was; it could not be; it stays here, because no mail was set up when
 * it was written.
 */
export const LETTER_STATES = ['waiting', 'sent', 'failed', 'kept'] as const;

/** What a revision did when it went live. Names are those of the first few. */
export interface RevisionEffect {
  readonly gains: { readonly count: number; readonly names: readonly string[] };
  readonly loses: { readonly count: number; readonly names: readonly string[] };
  /** The ids of items that changed for somebody. */
  readonly items: readonly string[];
  /** Where guests gained, lost, or got something else; records of before say only that they noticed. */
  readonly guests: GuestChange | readonly ItemId[];
  /** Why it went live though expectations were broken, and which. */
  readonly despite?: {
    readonly reason: string;
    readonly broken: readonly { readonly expected: string; readonly instead: string }[];
  };
}

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
