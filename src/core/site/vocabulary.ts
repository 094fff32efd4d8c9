import type { Condition } from '../condition/condition';
import type { AudienceId, FieldId, GroupId, ItemId, LevelId, PassphraseId, ProductId, RoleId } from '../ids';

export interface Named<T extends string = string> {
  readonly id: T;
  readonly name: string;
}

/** A role of the site. */
export type Role = Named<RoleId>;

/** A group of the site. A private one is never named in a reason that visitors read. */
export interface Group extends Named<GroupId> {
  readonly private: boolean;
  /** Whether every member may join and leave it as they like. */
  readonly open?: boolean;
}

/** A membership level. Its place in {@link SiteNames.levels} is its rank. */
export type Level = Named<LevelId>;

export const PRODUCT_KINDS = ['one-off', 'subscription', 'ticket'] as const;
export type ProductKind = (typeof PRODUCT_KINDS)[number];

/** Something for sale. A subscription is good until it ends; a ticket and a one-off stay owned. */
export interface Product extends Named<ProductId> {
  readonly kind: ProductKind;
}

export const FIELD_TYPES = ['text', 'choice', 'number', 'date', 'yes/no'] as const;
export type FieldType = (typeof FIELD_TYPES)[number];

/** A field of the members' profiles. */
export interface Field extends Named<FieldId> {
  readonly type: FieldType;
  /** What can be chosen, for a field of that type; empty for others. */
  readonly choices: readonly string[];
  /** A private one is never named in a reason that visitors read. */
  readonly private: boolean;
  /** Whether members fill it in themselves. What they do can't be relied on for protection. */
  readonly editable: boolean;
}

/** A condition with a name, which other conditions can use. */
export interface Audience extends Named<AudienceId> {
  readonly who: Condition;
}

/** The names that a site keeps beside its items, apart from the policy's. Levels stand in rank order, lowest first. */
export interface KeptNames {
  readonly roles: readonly Role[];
  readonly groups: readonly Group[];
  readonly levels: readonly Level[];
  readonly products: readonly Product[];
  readonly fields: readonly Field[];
  readonly passphrases: readonly Named<PassphraseId>[];
}

/** What conditions call by a name and is an item of the site: named by its title, in the order of the outline. */
export interface ItemNames {
  readonly courses: readonly Named<ItemId>[];
  readonly units: readonly Named<ItemId>[];
  readonly activities: readonly Named<ItemId>[];
}

/** The site's own names, apart from the policy's. */
export interface SiteNames extends KeptNames, ItemNames {}

/** Of a site's names, those that it keeps beside its items. */
export const keptNames = ({ courses: _, units: __, activities: ___, ...kept }: SiteNames): KeptNames => kept;

/** Every name that a condition can use: the site's, and the audiences of the policy it belongs to. */
export interface Vocabulary extends SiteNames {
  readonly audiences: readonly Audience[];
}

export const noNames: SiteNames = {
  roles: [],
  groups: [],
  levels: [],
  products: [],
  fields: [],
  courses: [],
  units: [],
  activities: [],
  passphrases: [],
};

/** The kinds of things that conditions name. */
export type NameKind =
  | 'role'
  | 'group'
  | 'level'
  | 'product'
  | 'field'
  | 'course'
  | 'unit'
  | 'activity'
  | 'passphrase'
  | 'audience';

/** Where the things of each kind are. */
export const LISTS = {
  role: 'roles',
  group: 'groups',
  level: 'levels',
  product: 'products',
  field: 'fields',
  course: 'courses',
  unit: 'units',
  activity: 'activities',
  passphrase: 'passphrases',
  audience: 'audiences',
} as const satisfies Record<NameKind, keyof Vocabulary>;

/** All things of a kind. */
export const namesOf = (vocabulary: Vocabulary, kind: NameKind): readonly Named[] => vocabulary[LISTS[kind]];

/** The name of a thing, or null when it no longer exists. */
export const nameOfId = (vocabulary: Vocabulary, kind: NameKind, id: string): string | null =>
  namesOf(vocabulary, kind).find((entry) => entry.id === id)?.name ?? null;
