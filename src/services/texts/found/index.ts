/** Texts from outside: Markdown and HTML in any encoding, read for what a text of ours can say. */
import { availableParallelism } from 'node:os';
import { askedThread } from '@/store';
import type { DocumentRead } from './document';
import type { RawDocument } from './read-document';

export { cut } from './cut';
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
const MOST_THREADS = 4;

const threads = Array.from({ length: Math.min(availableParallelism(), MOST_THREADS) }, () =>
  askedThread<RawDocument, DocumentRead>('src/services/texts/found/reading-thread.mjs', LONGEST_MS),
);

/** A thread takes as long to start as so many texts to be read. */
const WORTH_ANOTHER = 50;
const IDLE_MS = 60_000;

let idle: NodeJS.Timeout | undefined;
let next = 0;

/** Reads one of so many texts, in a thread of its own. One that takes too long is none. */
export async function readFound(raw: RawDocument, many: number): Promise<DocumentRead> {
  const thread = threads[next++ % Math.min(threads.length, Math.ceil(many / WORTH_ANOTHER))];
  clearTimeout(idle);
  try {
    return (await thread?.(raw)) ?? { problem: 'There is nobody to read it.' };
  } catch {
    return { problem: 'Reading it took too long.' };
  } finally {
    // Nobody reads from outside all day, and a thread takes its room.
    clearTimeout(idle);
    idle = setTimeout(() => {
      for (const one of threads) one.end();
    }, IDLE_MS).unref();
  }
}
