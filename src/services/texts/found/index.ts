/** Texts from outside: Markdown and HTML in any encoding, read for what a text of ours can say. */
import { askedThread } from '@/store';
import type { DocumentRead } from './document';
import type { RawDocument } from './read-document';

export {
  type About,
  type DocumentRead,
  type FoundDocument,
  LARGEST_TEXT,
  type Note,
  TEXT_ENDS,
  type TextKind,
} from './document';

const LONGEST_MS = 20_000;

const inThread = askedThread<RawDocument, DocumentRead>(
  'src/services/texts/found/reading-thread.mjs',
  LONGEST_MS,
);

/** Reads a text in a thread of its own. One that takes too long is none. */
export const readFound = (raw: RawDocument): Promise<DocumentRead> =>
  inThread(raw).catch(() => ({ problem: 'Reading it took too long.' }));
