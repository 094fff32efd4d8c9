import type { ItemId } from '../ids';
import type { ItemKind } from '../site/item';

/** What a turned-away visitor is told about why: the reason Trivet writes, the administrator's own, or none. */
export type Reason =
  | { readonly kind: 'written' }
  | { readonly kind: 'own'; readonly text: string }
  | { readonly kind: 'kept back' };

/** The step that a teaser or a message offers. */
export type NextStep =
  | { readonly kind: 'none' }
  | { readonly kind: 'sign in' }
  | { readonly kind: 'passphrase' }
  | { readonly kind: 'item'; readonly item: ItemId };

/** The item's title and summary, with a reason and a next step. */
export interface Teaser {
  readonly kind: 'teaser';
  /** Shown in place of the item's own summary. */
  readonly text: string | null;
  readonly reason: Reason;
  readonly next: NextStep;
}

/** Off to another page: sign-in or the passphrase page and back again, or an item. */
export interface Redirect {
  readonly kind: 'redirect';
  readonly to:
    | { readonly kind: 'sign in' }
    | { readonly kind: 'passphrase' }
    | { readonly kind: 'item'; readonly item: ItemId };
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
}

/** What a visitor who does not pass gets. */
export type TurnAway = Teaser | Redirect | Message | Missing | LeaveOut;

export const missing: Missing = { kind: 'missing' };
export const leaveOut: LeaveOut = { kind: 'leave out' };
export const redirectToPassphrase: Redirect = { kind: 'redirect', to: { kind: 'passphrase' } };
export const redirectToSignIn: Redirect = { kind: 'redirect', to: { kind: 'sign in' } };

/** The turn-aways that make sense for each kind of item. */
const FITTING: Record<ItemKind, readonly TurnAway['kind'][]> = {
  site: ['teaser', 'redirect', 'message', 'missing'],
  page: ['teaser', 'redirect', 'message', 'missing'],
  menu: ['leave out'],
  link: ['leave out'],
};

/** Whether a turn-away fits a kind of item as it is. */
export const fits = (kind: ItemKind, turnAway: TurnAway): boolean => FITTING[kind].includes(turnAway.kind);

/**
 * The nearest turn-away that fits a kind of item. A gate may cover several kinds at once; each gets what comes
 * closest without giving away more: a page that should be left out is missing, a link is left out.
 */
export function fitTo(kind: ItemKind, turnAway: TurnAway): TurnAway {
  if (fits(kind, turnAway)) return turnAway;
  return kind === 'menu' || kind === 'link' ? leaveOut : missing;
}
