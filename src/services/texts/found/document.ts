/** A text that was found outside, read for what Trivet keeps of one. */
import type { Day } from '@/core';

/** Something that could not be kept, or that somebody should know of. */
export interface Note {
  /** In the text as it came, counted from 1; null where it is about the whole. */
  readonly line: number | null;
  readonly message: string;
}

/** A place in a text where an address stands that may lead to something else that is taken in. */
export interface Spot {
  readonly kind: 'link' | 'picture';
  /** What is replaced when the address becomes another: offsets into the body. */
  readonly from: number;
  readonly to: number;
  /** What stands there around the address. */
  readonly before: string;
  readonly after: string;
  /** The address as it was written. */
  readonly url: string;
}

/** What a text says of itself. */
export interface About {
  readonly title: string | null;
  readonly date: Day | null;
  readonly tags: readonly string[];
  readonly category: string | null;
  readonly author: string | null;
  /** The address that it is to have. */
  readonly address: string | null;
  /** Addresses that it had before. */
  readonly formerly: readonly string[];
  /** What it stands below: an address, a path or a title. */
  readonly parent: string | null;
  readonly draft: boolean;
  readonly summary: string;
}

export interface FoundDocument extends About {
  /** In Markdown, with nothing in it that would be a region or an own word. */
  readonly body: string;
  readonly spots: readonly Spot[];
  /** Its words without marks, as they are searched for. */
  readonly words: string;
  /** What its headings are reached at now, by the ids that they had. */
  readonly anchors: Readonly<Record<string, string>>;
  readonly notes: readonly Note[];
}

/** What became of a text: read, or why it can't be. */
export type DocumentRead = { readonly document: FoundDocument } | { readonly problem: string };

/** What kinds of text are read, by the ends of their names. */
export const TEXT_ENDS = { md: 'markdown', markdown: 'markdown', html: 'html', htm: 'html' } as const;

export type TextKind = (typeof TEXT_ENDS)[keyof typeof TEXT_ENDS];

/** The largest text that is read, in bytes. */
export const LARGEST_TEXT = 2_000_000;
