/**
 * The kinds of item there are, the types of section and the places of menus: one entry each, with everything that the rest
 * of Trivet asks of a kind. docs/adding.md tells what else a new one needs.
 */
import { listed } from '../english';
import { keysOf } from '../keys';

interface Kind {
  /** One of them, and several, in a sentence: "a page", "pages". */
  readonly one: string;
  readonly many: string;
  /** What may hold it; nothing for the root. */
  readonly parents: readonly string[];
  /** The address it is opened at: its author's choice, one made from its id, or none of its own. */
  readonly address: 'chosen' | 'made' | null;
  /** Whether it is *in* what it stands below, and closed when that is. */
  readonly contained: boolean;
  /** Whether what it is in speaks before its own gates do: it is opened at an address that tells nothing of what it is in. */
  readonly afterAbove: boolean;
  /** Whether it is a part of what it stands below and folds out under it, not an entry of its own in the outline. */
  readonly part: boolean;
  /** Whether it is found by its category and date, wherever it stands, rather than by what it stands below. */
  readonly byCategory: boolean;
  /** The turn-aways that make sense for it, and which of them comes closest to one that does not. */
  readonly turnAways: readonly string[];
  readonly closest: 'missing' | 'leave out';
}

const WHOLE = {
  turnAways: ['teaser', 'redirect', 'message', 'missing'],
  closest: 'missing',
} as const;

/** Every kind of item, in the order in which they are named to people. */
export const KINDS = {
  site: {
    one: 'the site',
    many: 'the site itself',
    parents: [],
    address: null,
    contained: false,
    afterAbove: false,
    part: false,
    byCategory: false,
    ...WHOLE,
  },
  page: {
    one: 'a page',
    many: 'pages',
    parents: ['site', 'page'],
    address: 'chosen',
    contained: false,
    afterAbove: false,
    part: false,
    byCategory: false,
    ...WHOLE,
  },
  post: {
    one: 'a post',
    many: 'posts',
    parents: ['site', 'page'],
    address: 'chosen',
    contained: false,
    afterAbove: false,
    part: false,
    byCategory: true,
    ...WHOLE,
  },
  course: {
    one: 'a course',
    many: 'courses',
    parents: ['site', 'page'],
    address: 'chosen',
    contained: false,
    afterAbove: false,
    part: false,
    byCategory: false,
    ...WHOLE,
  },
  unit: {
    one: 'a unit',
    many: 'units',
    parents: ['course'],
    address: null,
    contained: true,
    afterAbove: true,
    part: false,
    byCategory: false,
    turnAways: ['teaser', 'leave out', 'locked'],
    closest: 'leave out',
  },
  activity: {
    one: 'an activity',
    many: 'activities',
    parents: ['unit'],
    address: 'chosen',
    contained: true,
    afterAbove: true,
    part: false,
    byCategory: false,
    turnAways: ['teaser', 'redirect', 'message', 'missing', 'leave out', 'locked'],
    closest: 'missing',
  },
  section: {
    one: 'a section',
    many: 'sections',
    parents: ['site', 'page', 'post', 'course', 'activity'],
    address: null,
    contained: true,
    afterAbove: false,
    part: true,
    byCategory: false,
    turnAways: ['teaser', 'message', 'leave out', 'swap', 'locked'],
    closest: 'leave out',
  },
  menu: {
    one: 'a menu',
    many: 'menus',
    parents: ['site'],
    address: null,
    contained: false,
    afterAbove: false,
    part: false,
    byCategory: false,
    turnAways: ['leave out'],
    closest: 'leave out',
  },
  link: {
    one: 'a menu link',
    many: 'menu links',
    parents: ['menu', 'link'],
    address: null,
    contained: true,
    afterAbove: false,
    part: false,
    byCategory: false,
    turnAways: ['leave out', 'locked'],
    closest: 'leave out',
  },
  file: {
    one: 'a file',
    many: 'files',
    parents: ['site', 'page', 'post', 'course', 'activity', 'section'],
    address: 'made',
    contained: true,
    afterAbove: false,
    part: true,
    byCategory: false,
    ...WHOLE,
  },
} as const satisfies Record<string, Kind>;

export type ItemKind = keyof typeof KINDS;
export const ITEM_KINDS = keysOf(KINDS);

/** The kinds of which something is true in the table, as a type. */
type Where<Key extends keyof Kind, Value> = {
  [K in ItemKind]: (typeof KINDS)[K][Key] extends Value ? K : never;
}[ItemKind];

/** What has an address that its author chose, and what can be opened by itself at any address. */
export type AddressedKind = Where<'address', 'chosen'>;
export type OpenableKind = Where<'address', 'chosen' | 'made'>;

export const isAddressedKind = (kind: ItemKind): kind is AddressedKind => KINDS[kind].address === 'chosen';
export const isOpenableKind = (kind: ItemKind): kind is OpenableKind => KINDS[kind].address !== null;
export const OPENABLE_KINDS = ITEM_KINDS.filter(isOpenableKind);

/** Whether an item of one kind can stand below one of another. */
export const mayHold = (parent: ItemKind, child: ItemKind): boolean => parentsOf(child).includes(parent);

/** The kinds that may hold one of this kind. */
export const parentsOf = (kind: ItemKind): readonly ItemKind[] => KINDS[kind].parents;

/** "a page, a post or a file". */
export const oneOfKinds = (kinds: readonly ItemKind[]): string =>
  listed(
    kinds.map((kind) => KINDS[kind].one),
    'or',
  ) || 'nothing';

interface SectionKind {
  /** What the desk calls it. */
  readonly name: string;
  /** Whether it holds a text, with marked regions. */
  readonly text: boolean;
  /** The kind of file that it shows, as its media type begins; null for none. */
  readonly shows: string | null;
  /** Whether what it says depends on its reader even where it is open to everybody. */
  readonly varies: boolean;
}

/** Every type of section, in the order in which they are offered. */
export const SECTIONS = {
  text: { name: 'text', text: true, shows: null, varies: false },
  picture: { name: 'picture', text: false, shows: 'image/', varies: false },
  video: { name: 'video', text: true, shows: 'video/', varies: false },
  form: { name: 'form', text: true, shows: null, varies: false },
  call: { name: 'call to action', text: true, shows: null, varies: true },
  posts: { name: 'list of posts', text: false, shows: null, varies: true },
  files: { name: 'list of files', text: false, shows: null, varies: true },
  outline: { name: 'outline of a course', text: false, shows: null, varies: true },
  follow: { name: 'following a group', text: true, shows: null, varies: true },
  prices: { name: 'table of prices', text: true, shows: null, varies: true },
  account: { name: 'a member’s account', text: false, shows: null, varies: true },
} as const satisfies Record<string, SectionKind>;

export type SectionType = keyof typeof SECTIONS;
export const SECTION_TYPES = keysOf(SECTIONS);

interface ActivityKind {
  /** What the desk calls one. */
  readonly one: string;
  /** Whether its learners say so when they are done with it. */
  readonly learnersSay: boolean;
}

/** What one does in an activity. */
export const ACTIVITIES = {
  reading: { one: 'a reading', learnersSay: true },
  video: { one: 'a video', learnersSay: true },
  quiz: { one: 'a quiz', learnersSay: false },
  'hand-in': { one: 'a hand-in', learnersSay: false },
} as const satisfies Record<string, ActivityKind>;

/** When an activity is done of which its learners say so, with what the desk says of that. */
export const DONE_WHEN = {
  said: 'they say so',
  opened: 'they open it',
} as const;

export type DoneWhen = keyof typeof DONE_WHEN;
export const DONE_WHENS = keysOf(DONE_WHEN);

export type ActivityType = keyof typeof ACTIVITIES;
export const ACTIVITY_TYPES = keysOf(ACTIVITIES);

/** Where a menu stands on a page. */
export const MENU_PLACES = ['top', 'side', 'foot'] as const;
export type MenuPlace = (typeof MENU_PLACES)[number];
