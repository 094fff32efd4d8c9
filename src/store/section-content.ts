/** What a section holds beside its text, by type. A text, a call and a form have their Markdown in the item's body. */
import type { LinkTarget } from '../core/site/item';

/** One question of a form. */
export interface FormField {
  readonly label: string;
  readonly type: 'text' | 'long' | 'mail' | 'choice' | 'tick';
  /** For a choice. */
  readonly choices: readonly string[];
  readonly required: boolean;
}

export type SectionContent =
  /** The file's id; what it shows, for those who can't see it; and what stands below it. */
  | { readonly type: 'picture'; readonly file: string | null; readonly alt: string; readonly caption: string }
  | { readonly type: 'video'; readonly file: string | null; readonly caption: string }
  | {
      readonly type: 'form';
      readonly fields: readonly FormField[];
      readonly button: string;
      /** Where what is sent goes: a mail address. */
      readonly mailTo: string;
      readonly thanks: string;
    }
  | { readonly type: 'call'; readonly label: string; readonly to: LinkTarget }
  /** The latest posts, of a category and with a tag if these are given. */
  | {
      readonly type: 'posts';
      readonly category: string | null;
      readonly tag: string | null;
      readonly count: number;
    }
  /** The files of a category, or all. */
  | { readonly type: 'files'; readonly category: string | null }
  | { readonly type: 'follow'; readonly group: string };
