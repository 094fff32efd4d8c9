/** Bytes as text, in whatever encoding they are. */
import type { Note } from './document';

/** The text of some bytes, with what should be known about how they were read; null where they are no text. */
export function textOf(
  bytes: Uint8Array,
  /** What it is said to be written in, by whoever sent it. */
  said: string | null,
): { readonly text: string; readonly notes: readonly Note[] } | null {
  const marked = markOf(bytes);
  const label = marked ?? said ?? 'utf-8';
  const text = decoded(bytes, label, true) ?? decoded(bytes, 'utf-8', true);
  if (text !== null) return usable(text, []);
  // A superset of Latin-1 that every byte means something in (WHATWG Encoding §9).
  const guessed = decoded(bytes, 'windows-1252', false) ?? '';
  return usable(guessed, [
    { line: null, message: 'It is not UTF-8 and was read as Latin-1 (Windows-1252). Look at its letters.' },
  ]);
}

/** What a mark at the beginning says (Unicode §23.8). */
function markOf([first, second, third]: Uint8Array): string | null {
  if (first === 0xef && second === 0xbb && third === 0xbf) return 'utf-8';
  if (first === 0xfe && second === 0xff) return 'utf-16be';
  if (first === 0xff && second === 0xfe) return 'utf-16le';
  return null;
}

function decoded(bytes: Uint8Array, label: string, fatal: boolean): string | null {
  try {
    return new TextDecoder(label, { fatal }).decode(bytes);
  } catch {
    // It can't be that, or there is no such encoding.
    return null;
  }
}

// Characters that stand for nothing (C0 without tab and line feed, DEL), and those that marks of ours are made of.
const NONE = /[\p{Cc}\uE000\uE001]/gu;

function usable(decodedText: string, notes: readonly Note[]) {
  const text = decodedText.replace(/\r\n?|\f/g, '\n');
  if (text.includes('\0')) return null;
  const plain = text.replace(NONE, (one) => (one === '\n' || one === '\t' ? one : ''));
  return {
    text: plain,
    notes:
      plain.length === text.length
        ? notes
        : [
            ...notes,
            {
              line: null,
              message: `${text.length - plain.length} characters that no text has were dropped.`,
            },
          ],
  };
}
