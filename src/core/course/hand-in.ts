/** Hand-ins: what may be handed in, and what becomes of it. */
import { keysOf } from '../keys';

/** The kinds of file that can be handed in, with what they are called and how their media types begin. */
export const HANDED_IN = {
  pictures: { name: 'pictures', types: ['image/'] },
  pdf: { name: 'PDF', types: ['application/pdf'] },
  texts: { name: 'plain text', types: ['text/'] },
  films: { name: 'videos', types: ['video/'] },
  sounds: { name: 'sound', types: ['audio/'] },
} as const satisfies Record<string, { readonly name: string; readonly types: readonly string[] }>;

export type HandedInKind = keyof typeof HANDED_IN;
export const HANDED_IN_KINDS = keysOf(HANDED_IN);

/** What an author lets learners hand in. */
export interface HandInTerms {
  /** Whether something may be written. */
  readonly text: boolean;
  /** How many files at most; 0 for none. */
  readonly files: number;
  readonly kinds: readonly HandedInKind[];
  /** The largest a file may be, in millions of bytes. */
  readonly megabytes: number;
}

export const MOST_HANDED_FILES = 5;
export const MOST_MEGABYTES = 10;
/** In letters. */
export const LONGEST_HAND_IN = 50_000;
/** More than anybody needs, so that nobody fills the disk with them. */
export const MOST_VERSIONS = 50;

/** A hand-in that was just made. */
export const newTask: HandInTerms = { text: true, files: 1, kinds: ['pictures', 'pdf'], megabytes: 5 };

/** What becomes of a version of a hand-in, with what it is called; one that is handed in anew takes its place. */
export const HAND_INS = {
  waiting: { words: 'waits for a tutor' },
  replaced: { words: 'a newer one took its place' },
  accepted: { words: 'accepted' },
  'given back': { words: 'given back' },
} as const satisfies Record<string, { readonly words: string }>;

export type HandInState = keyof typeof HAND_INS;
export const HAND_IN_STATES = keysOf(HAND_INS);

/** Whether another version can be handed in after so many, by somebody who is done with it or is not. */
export const mayHandIn = (isDone: boolean, versions: number): 'may' | 'done' | 'too many' =>
  isDone ? 'done' : versions >= MOST_VERSIONS ? 'too many' : 'may';

/** Whether files of a media type are among what may be handed in. */
export const isHandedIn = ({ kinds }: HandInTerms, mediaType: string): boolean =>
  kinds.some((kind) => HANDED_IN[kind].types.some((type) => mediaType.startsWith(type)));
