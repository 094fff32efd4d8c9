/** What is taken in from: a folder that was sent as an archive, or a site on the web. */
import type { TextKind } from '../texts';

/** The most that is taken in at once. */
export const MOST_TEXTS = 5000;
export const MOST_FILES = 2000;
export const MOST_ITEMS = 20_000;

/** Something that was found and stays where it is, with why. */
export interface LeftOut {
  readonly path: string;
  readonly why: string;
}

/** What a text's bytes are, or why they can't be had. */
export type TextBytes =
  | {
      readonly bytes: Uint8Array;
      readonly kind: TextKind;
      readonly charset: string | null;
      /** Where it is found in truth, if that is somewhere else. */
      readonly path?: string;
    }
  | { readonly problem: string };

export interface SourceText {
  /** Decoded, with slashes between its parts and none before them: "docs/intro.md", "about/" or "" for the first page. */
  readonly path: string;
  read(): Promise<TextBytes>;
}

export interface Source {
  /** As it is named to people. */
  readonly name: string;
  readonly kind: 'folder' | 'web';
  /** What its paths are below, as a browser resolves addresses. */
  readonly base: URL;
  readonly texts: readonly SourceText[];
  readonly leftOut: readonly LeftOut[];
  /** The paths of its files, where they are known beforehand. */
  readonly files: readonly string[];
  /** The bytes of a file that a text shows or links to; null where there is none. */
  file(path: string): Promise<{ readonly bytes: Uint8Array } | { readonly problem: string } | null>;
  close(): Promise<void>;
}

/** Says that whoever waits does so no longer. */
export class Stopped extends Error {}

export const stopIf = (signal: AbortSignal): void => {
  if (signal.aborted) throw new Stopped('It was stopped.');
};

/** Where an address in a text leads within its source, with the heading there; null for anywhere else. */
export function targetOf(
  url: string,
  from: string,
  base: URL,
): { readonly path: string; readonly anchor: string } | null {
  const here = new URL(encodeURI(from).replace(/[?#]/g, encodeURIComponent), base);
  if (!URL.canParse(url, here)) return null;
  const to = new URL(url, here);
  if (to.origin !== base.origin || to.username !== '' || to.password !== '') return null;
  const path = decodedPath(to.pathname);
  return path === null ? null : { path: path + to.search, anchor: decoded(to.hash.slice(1)) ?? '' };
}

/** A path as it is kept: decoded once, in one spelling of its letters; null where it can't be. */
export const decodedPath = (pathname: string): string | null =>
  decoded(pathname)?.normalize('NFC').replace(/^\/+/, '') ?? null;

function decoded(text: string): string | null {
  try {
    return decodeURIComponent(text);
  } catch {
    return null;
  }
}

/** A path as people are told of it. */
export const saidOf = (kind: Source['kind'], path: string): string => (kind === 'web' ? `/${path}` : path);
