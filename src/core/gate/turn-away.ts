import type { GroupId, ItemId, ProductId, TurnAwayId } from '../ids';
import { type ItemKind, KINDS } from '../site/kinds';
import { fittingFor, type TurnAwayKind } from './turn-aways';

/** What a turned-away visitor is told about why: the reason Trivet writes, the administrator's own, or none. */
export type Reason =
  | { readonly kind: 'written' }
  | { readonly kind: 'own'; readonly text: string }
  | { readonly kind: 'kept back' };

/** The step that a teaser or a message offers. */
export type NextStep =
  | { readonly kind: 'none' }
  | { readonly kind: 'sign in' }
  | { readonly kind: 'sign up' }
  | { readonly kind: 'passphrase' }
  /** Joining an open group. */
  | { readonly kind: 'follow'; readonly group: GroupId }
  /** Buying a product, and then back. */
  | { readonly kind: 'buy'; readonly product: ProductId }
  | { readonly kind: 'item'; readonly item: ItemId }
  | { readonly kind: 'outside'; readonly url: string; readonly label: string };

/** What a teaser shows of an item beside its title. */
export type TeaserText =
  /** The item's own summary, or none if it has none. */
  | { readonly kind: 'summary' }
  /** The first words of what is withheld from nobody else within the item. */
  | { readonly kind: 'words'; readonly count: number }
  | { readonly kind: 'text'; readonly text: string };

/** The item's title with something of it, a reason and a next step. */
export interface Teaser {
  readonly kind: 'teaser';
  readonly show: TeaserText;
  /** Whether the item's picture is shown, too coarse for anything in it to be made out. */
  readonly preview: boolean;
  readonly reason: Reason;
  readonly next: NextStep;
}

/** Off to another page: sign-in or the passphrase page and back again, an item, or an address elsewhere. */
export interface Redirect {
  readonly kind: 'redirect';
  readonly to:
    | { readonly kind: 'sign in' }
    | { readonly kind: 'passphrase' }
    | { readonly kind: 'item'; readonly item: ItemId }
    | { readonly kind: 'outside'; readonly url: string };
}

/** A page that says no, and nothing of the item. */
export interface Message {
  readonly kind: 'message';
  readonly reason: Reason;
  readonly next: NextStep;
}

/** As if there were nothing at that address. */
export interface Missing {
  readonly kind: 'missing';
}

/** Not shown at all, where it would stand among other things. */
export interface LeaveOut {
  readonly kind: 'leave out';
  /** Whether a section leaves its space empty rather than closing up. */
  readonly keepSpace?: boolean;
}

/** Other content in its place. */
export interface Swap {
  readonly kind: 'swap';
  /** Markdown. */
  readonly text: string;
}

/** Its title, shown as something that is closed, with the reason and what would open it. */
export interface Locked {
  readonly kind: 'locked';
  readonly reason: Reason;
  readonly next: NextStep;
}

/** What each turn-away is made of. */
export interface TurnAwayShapes {
  readonly teaser: Teaser;
  readonly redirect: Redirect;
  readonly message: Message;
  readonly missing: Missing;
  readonly 'leave out': LeaveOut;
  readonly swap: Swap;
  readonly locked: Locked;
}

/** What a visitor who does not pass gets. */
export type TurnAway = TurnAwayShapes[TurnAwayKind];

/** A turn-away with a name, which many gates can use and which is changed in one place. */
export interface NamedTurnAway {
  readonly id: TurnAwayId;
  readonly name: string;
  readonly give: TurnAway;
}

/** The use of one with a name. */
export interface TurnAwayUse {
  readonly kind: 'named';
  readonly turnAway: TurnAwayId;
}

/** What a case gives: a turn-away of its own, or one with a name. */
export type Given = TurnAway | TurnAwayUse;

/** What is given. One with a name that no longer exists gives nothing at all. */
export const resolveGiven = (given: Given, named: readonly NamedTurnAway[]): TurnAway =>
  given.kind === 'named' ? (named.find(({ id }) => id === given.turnAway)?.give ?? missing) : given;

export const missing: Missing = { kind: 'missing' };
export const leaveOut: LeaveOut = { kind: 'leave out' };
export const redirectToPassphrase: Redirect = { kind: 'redirect', to: { kind: 'passphrase' } };
export const redirectToSignIn: Redirect = { kind: 'redirect', to: { kind: 'sign in' } };

/** Whether a turn-away fits a kind of item as it is. */
export const fits = (kind: ItemKind, turnAway: TurnAway): boolean => fittingFor(kind).includes(turnAway.kind);

/**
 * The nearest turn-away that fits a kind of item. A gate may cover several kinds at once; each gets what comes
 * closest without giving away more: a page that should be left out is missing, one that should be locked gives a message,
 * which does not even tell its title; a section or a link that should redirect is left out.
 */
export function fitTo(kind: ItemKind, turnAway: TurnAway): TurnAway {
  if (fits(kind, turnAway)) return turnAway;
  const { closest } = KINDS[kind];
  return turnAway.kind === 'locked' && closest === 'missing'
    ? { kind: 'message', reason: turnAway.reason, next: turnAway.next }
    : { kind: closest };
}
