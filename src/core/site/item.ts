import type { GroupId, ItemId, PersonId } from '../ids';
import type { Address } from './address';
import type { Day } from './day';
import {
  type ActivityType,
  type AddressedKind,
  type ItemKind,
  isAddressedKind,
  isOpenableKind,
  type MenuPlace,
  type OpenableKind,
  type SectionType,
} from './kinds';
import type { Shared } from './shared';

/** What an item is about, as far as conditions can ask. What is not given is not known. */
export interface ItemFacts {
  readonly category?: string;
  readonly tags?: readonly string[];
  /** The author's name as it stands by the item. */
  readonly author?: string;
  readonly owner?: PersonId;
  readonly group?: GroupId;
  readonly date?: Day;
  /** The file that is its picture. */
  readonly picture?: ItemId;
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
  /** Of whatever is in a course. Found by the outline; never written. */
  readonly within?: Within;
}

/** The root of the tree. */
export interface Site extends ItemBase {
  readonly kind: 'site';
}

/** Something with an address of its own, in the tree of pages. */
export interface Page extends ItemBase {
  readonly kind: 'page';
  readonly address: Address;
}

/** Something with an address of its own and a date, which lists and feeds bring. */
export interface Post extends ItemBase {
  readonly kind: 'post';
  readonly address: Address;
}

/** Something that people are enrolled in: units of activities, and a page that says what it is about. */
export interface Course extends ItemBase {
  readonly kind: 'course';
  readonly address: Address;
}

/** A part of a course. */
export interface Unit extends ItemBase {
  readonly kind: 'unit';
}

/** Something to do in a unit, with an address of its own. */
export interface Activity extends ItemBase {
  readonly kind: 'activity';
  readonly address: Address;
  readonly activity: ActivityType;
}

/** Where in a course something stands. */
export interface Within {
  readonly course: ItemId;
  /** Of an activity and what is in it. */
  readonly unit: ItemId | null;
  /** Of an activity and what is in it: the published activity before it in its unit, null for the first. */
  readonly before: ItemId | null;
}

/** A part of a page or post. It is in what it is part of: closed when that is. One that many share stands below the site. */
export interface Section extends ItemBase {
  readonly kind: 'section';
  readonly type: SectionType;
  /** Where it stands, if it is shared; only one below the site itself is. */
  readonly shared?: Shared;
}

/**
 * A file. Below the site it stands for itself; below a page, a post or a section it is in that, and closed when that is,
 * so that the picture of a gated post is as gated as the post.
 */
export interface File extends ItemBase {
  readonly kind: 'file';
  /** The last part of its address, safe in any file system. */
  readonly name: string;
  /** By content, not by name. */
  readonly mediaType: string;
  /** In bytes. */
  readonly size: number;
}

/** A place for links. */
export interface Menu extends ItemBase {
  readonly kind: 'menu';
  readonly place: MenuPlace;
}

/** Where a menu link leads. A link to an item is shown exactly to those who can open the item. */
export type LinkTarget =
  | { readonly kind: 'item'; readonly item: ItemId }
  | { readonly kind: 'outside'; readonly url: string }
  | { readonly kind: 'sign in' }
  | { readonly kind: 'sign up' }
  | { readonly kind: 'sign out' };

/** A link in a menu, or below another link. */
export interface Link extends ItemBase {
  readonly kind: 'link';
  readonly target: LinkTarget;
}

/** What an item of each kind is. */
interface Items {
  readonly site: Site;
  readonly page: Page;
  readonly post: Post;
  readonly course: Course;
  readonly unit: Unit;
  readonly activity: Activity;
  readonly section: Section;
  readonly menu: Menu;
  readonly link: Link;
  readonly file: File;
}

/** Anything that can be gated, as far as gates are concerned: its place and facts, not its content. */
export type Item = Items[ItemKind];

/** What has an address that its author chose. */
export type Addressed = Items[AddressedKind];

/** What can be opened by itself. */
export type Openable = Items[OpenableKind];

export const isAddressed = (item: Item | undefined): item is Addressed =>
  item !== undefined && isAddressedKind(item.kind);

export const isOpenable = (item: Item | undefined): item is Openable =>
  item !== undefined && isOpenableKind(item.kind);

/** The path at which an item is found on the site, not encoded, or null for what has none. */
export function pathOf(item: Item | undefined): string | null {
  if (isAddressed(item)) return item.address;
  return isOpenable(item) ? `/files/${item.id}/${item.name}` : null;
}
