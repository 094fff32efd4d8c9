/**
 * Markdown texts as they were read: as HTML, and as words alone. The same texts are shown over and over. Long ones are read
 * ahead, in a thread of their own, by whoever is about to need them.
 */
import { LRUCache } from 'lru-cache';
import { askedThread } from '@/store';
import { htmlOf, plainTextOf } from './markdown';

interface Rendering {
  readonly html: string;
  readonly words: string;
}

// Shorter ones are read in a few milliseconds.
const LONG = 4000;
const sizeOf = ({ html = '', words = '' }: Partial<Rendering>, markdown: string): number =>
  markdown.length + html.length + words.length + 1;

/** Kept by how many letters they come to, with what became of them; those that nobody asked for lately go first. */
const kept = new LRUCache<string, Partial<Rendering>>({ maxSize: 64_000_000, sizeCalculation: sizeOf });

const keep = (markdown: string, rendering: Partial<Rendering>): void => {
  kept.set(markdown, { ...kept.get(markdown), ...rendering });
};

/** One side of a rendering, kept from before or made now; what comes to nothing is kept as well. */
function side(markdown: string, name: keyof Rendering, make: (markdown: string) => string): string {
  const found = kept.get(markdown)?.[name];
  if (found !== undefined) return found;
  const made = make(markdown);
  keep(markdown, { [name]: made });
  return made;
}

/** The HTML of a Markdown text, as `htmlOf` makes it. */
export const renderedHtml = (markdown: string): string => side(markdown, 'html', htmlOf);

/** The words of a Markdown text, as `plainTextOf` makes them. */
export const renderedWords = (markdown: string): string => side(markdown, 'words', plainTextOf);

// What is being read: whoever needs the same waits for the same.
const reading = new Map<string, Promise<void>>();

/** Reads long texts before they are needed, so that nobody else waits meanwhile. */
export async function readAhead(texts: readonly string[]): Promise<void> {
  for (const markdown of texts) {
    if (markdown.length < LONG || kept.get(markdown)?.html !== undefined) continue;
    const read = reading.get(markdown) ?? readNow(markdown);
    reading.set(markdown, read);
    await read;
  }
}

async function readNow(markdown: string): Promise<void> {
  // Where the thread can't be had the text is read as it is needed.
  const rendering = await inThread(markdown).catch(() => null);
  if (rendering) keep(markdown, rendering);
  reading.delete(markdown);
}

const inThread = askedThread<string, Rendering>('src/services/texts/markdown-thread.mjs');
