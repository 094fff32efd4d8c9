/** What is known while taking in is planned: each step fills in more of it. */
import type { Address, ItemId } from '@/core';
import type { StoredItem } from '@/store';
import type { SiteState } from '../running';
import type { Note } from '../texts';
import type { FirstPage } from './first-page';
import type { FoundFile, Material } from './material';
import type { Place } from './places';
import type { LeftOut } from './source';

/** How what was found is to come in. */
export interface Wishes {
  /** What it is to stand below. */
  readonly above: ItemId;
  /** Whether what has a date becomes a post. */
  readonly posts: boolean;
  /** Whether what says nothing else is published. */
  readonly published: boolean;
  /** Whether its first page becomes the text of the site's. */
  readonly first: boolean;
  /** The menu in which links to its topmost pages stand; null for none. */
  readonly menu: ItemId | null;
}

/** A page or post that comes in. */
export interface PlannedPage {
  readonly item: ItemId;
  readonly title: string;
  readonly address: Address;
  readonly kind: 'page' | 'post';
  /** How deep it stands below what it was put below. */
  readonly depth: number;
  /** Where it was found; null for a page that was made for a folder. */
  readonly from: string | null;
  readonly published: boolean;
  readonly formerly: readonly Address[];
  readonly files: number;
  readonly notes: readonly Note[];
}

export interface PlannedFile {
  readonly item: ItemId;
  readonly file: FoundFile;
}

export interface Plan {
  readonly pages: readonly PlannedPage[];
  /** Everything that comes, each after what it stands below. */
  readonly stored: readonly StoredItem[];
  readonly files: readonly PlannedFile[];
  readonly formerly: ReadonlyMap<Address, ItemId>;
  /** The site's first page and its text, before and after; empty where those stay. */
  readonly first: readonly { readonly before: StoredItem; readonly after: StoredItem }[];
  readonly leftOut: readonly LeftOut[];
  /** The words of its texts. */
  readonly words: ReadonlyMap<string, string>;
}

/** A place once it is known what becomes of it. */
export interface Standing {
  readonly place: Place;
  readonly item: ItemId;
  readonly address: Address;
  readonly kind: 'page' | 'post';
  readonly depth: number;
  readonly notes: Note[];
  readonly files: Set<string>;
  formerly: readonly Address[];
  body: string;
}

/** A file that texts show or link to. */
export interface UsedFile {
  readonly item: ItemId;
  readonly users: Standing[];
  alt: string;
}

export interface Planning {
  readonly state: SiteState;
  readonly material: Material;
  readonly wishes: Wishes;
  readonly today: string;
  /** The site's first page, where another text takes the place of its one. */
  readonly first: FirstPage | null;
  /** What addresses begin with. */
  base: string;
  readonly standing: Map<Place, Standing>;
  /** The same by what links find them by. */
  readonly byKey: Map<string, Standing>;
  readonly files: Map<string, UsedFile>;
  readonly formerly: Map<Address, ItemId>;
  readonly leftOut: LeftOut[];
}

/** Whether a page is there for anybody once it comes in. */
export const isPublished = ({ first, wishes }: Planning, { place, item }: Standing): boolean =>
  item === first?.page.id ? first.page.published : wishes.published && place.text?.document.draft !== true;
