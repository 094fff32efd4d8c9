/** Hand-ins: what may be handed in, and what becomes of it. */
import { keysOf } from '../keys';

/** The kinds of file that can be handed in, with how their media types begin; what they are called, messages say. */
const HANDED_IN = {
  pictures: ['image/'],
  pdf: ['application/pdf'],
  texts: ['text/'],
  films: ['video/'],
  sounds: ['audio/'],
} as const satisfies Record<string, readonly string[]>;

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

/** What becomes of a version of a hand-in; one that is handed in anew takes its place. */
export const HAND_IN_STATES = ['waiting', 'replaced', 'accepted', 'given back'] as const;
export type HandInState = (typeof HAND_IN_STATES)[number];

/** Whether another version can be handed in after so many, by somebody who is done with it or is not. */
export const mayHandIn = (isDone: boolean, versions: number): 'may' | 'done' | 'too many' =>
  isDone ? 'done' : versions >= MOST_VERSIONS ? 'too many' : 'may';

/** Whether files of a media type are among what may be handed in. */
export const isHandedIn = ({ kinds }: HandInTerms, mediaType: string): boolean =>
  kinds.some((kind) => HANDED_IN[kind].some((type) => mediaType.startsWith(type)));
