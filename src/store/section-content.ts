/** What a section holds beside its text, by type. A text, a call and a form have their Markdown in the item's body. */
import type { LinkTarget } from '../core/site/item';
import type { SectionType } from '../core/site/kinds';

/** One question of a form. */
export interface FormField {
  readonly label: string;
  readonly type: 'text' | 'long' | 'mail' | 'choice' | 'tick';
  /** For a choice. */
  readonly choices: readonly string[];
  readonly required: boolean;
}

interface Parts {
  /** The file's id; what it shows, for those who can't see it; and what stands below it. */
  readonly picture: { readonly file: string | null; readonly alt: string; readonly caption: string };
  /** The file's id, what stands below it, and the id of the file with its captions (WebVTT); its transcript is its text. */
  readonly video: {
    readonly file: string | null;
    readonly caption: string;
    /** Not there in what was kept before there were captions. */
    readonly captions?: string | null;
  };
  readonly form: {
    readonly fields: readonly FormField[];
    readonly button: string;
    /** Where what is sent goes: a mail address. */
    readonly mailTo: string;
    readonly thanks: string;
  };
  readonly call: { readonly label: string; readonly to: LinkTarget };
  /** The latest posts, of a category and with a tag if these are given. */
  readonly posts: { readonly category: string | null; readonly tag: string | null; readonly count: number };
  /** The files of a category, or all. */
  readonly files: { readonly category: string | null };
  /** A course's id. */
  readonly outline: { readonly course: string };
  readonly follow: { readonly group: string };
  /** The products' ids; all that are sold where it names none. */
  readonly prices: { readonly products: readonly string[] };
}

/** The types of section that hold nothing beside their text, or nothing at all. */
type Bare = 'text' | 'account';

export type SectionContent = {
  [K in Exclude<SectionType, Bare>]: { readonly type: K } & Parts[K];
}[Exclude<SectionType, Bare>];
