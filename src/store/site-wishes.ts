/** What an owner wishes of their site: how it looks, what it says of itself, what new members start with. */
import type { FieldId, GroupId, ItemId, LevelId, RoleId } from '../core/ids';
import type { LetterKind } from '../core/letters/letters';

export interface SiteLook {
  /** Three colours, six hex digits each. */
  readonly head: string;
  readonly mark: string;
  readonly link: string;
  /** The picture that stands before the site's name; null for none. */
  readonly picture: ItemId | null;
}

/** Letters in the site's own words, by kind: a subject and a text with {names} in them. Of those that are not here Trivet has its own. */
export type SiteLetters = Partial<
  Readonly<Record<LetterKind, { readonly subject: string; readonly text: string }>>
>;

/** In Markdown. */
export interface SiteWords {
  /** At the foot of every page. */
  readonly foot: string;
  /** Where nothing is. */
  readonly missing: string;
}

/** What somebody has, and is asked, who makes an account by themselves. */
export interface SiteStarts {
  readonly level: LevelId | null;
  readonly roles: readonly RoleId[];
  readonly groups: readonly GroupId[];
  /** What they are asked to fill in: fields that are theirs to change. */
  readonly asks: readonly FieldId[];
}
