import type { GroupId, ItemId, PersonId } from '../ids';
import type { Address } from './address';
import type { Day } from './day';

/** What an item is about, as far as conditions can ask. What is not given is not known. */
export interface ItemFacts {
  readonly category?: string;
  readonly tags?: readonly string[];
  /** The author's name as it stands by the item. */
  readonly author?: string;
  readonly owner?: PersonId;
  readonly group?: GroupId;
  readonly date?: Day;
  /** The address of a picture. */
  readonly picture?: string;
}

interface ItemBase {
  readonly id: ItemId;
  /** The item above it; only the site itself has none. */
  readonly parent: ItemId | null;
  /** Place among its siblings, lowest first. */
  readonly rank: number;
  readonly title: string;
  /** An unpublished item is missing for everyone on the site. */
  readonly published: boolean;
  readonly facts?: ItemFacts;
}

/** The root of the tree. */
export interface Site extends ItemBase {
  readonly kind: 'site';
}

/** Something with an address of its own. */
export interface Page extends ItemBase {
  readonly kind: 'page';
  readonly address: Address;
}

/** A place for links. */
export interface Menu extends ItemBase {
  readonly kind: 'menu';
  readonly place: 'top';
}

/** Where a menu link leads. A link to an item is shown exactly to those who can open the item. */
export type LinkTarget =
  | { readonly kind: 'item'; readonly item: ItemId }
  | { readonly kind: 'outside'; readonly url: string }
  | { readonly kind: 'sign in' }
  | { readonly kind: 'sign out' };

/** A link in a menu, or below another link. */
export interface Link extends ItemBase {
  readonly kind: 'link';
  readonly target: LinkTarget;
}

/** Anything that can be gated, as far as gates are concerned: its place and facts, not its content. */
export type Item = Site | Page | Menu | Link;

export type ItemKind = Item['kind'];
