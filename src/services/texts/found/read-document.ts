/** Reading a text from outside: bytes in any encoding, Markdown or HTML. */
import { textOf } from './decode';
import type { DocumentRead, TextKind } from './document';
import { readHtml } from './read-html';
import { readMarkdown } from './read-markdown';

/** A text as it was found. */
export interface RawDocument {
  readonly bytes: Uint8Array;
  readonly kind: TextKind;
  /** What it is written in, as whoever sent it says. */
  readonly charset: string | null;
}

/** The encoding that a page of HTML names itself, near its beginning (HTML §13.2.3.2). */
function charsetIn(bytes: Uint8Array): string | null {
  const start = new TextDecoder('latin1').decode(bytes.subarray(0, 1024));
  return /<meta[^>]+charset\s*=\s*["']?\s*([\w-]+)/i.exec(start)?.[1] ?? null;
}

/** Reads a text, or says why it can't be; never throws. */
export function readDocument({ bytes, kind, charset }: RawDocument): DocumentRead {
  const decoded = textOf(bytes, charset ?? (kind === 'html' ? charsetIn(bytes) : null));
  if (decoded === null) return { problem: 'That is no text.' };
  try {
    const read = kind === 'html' ? readHtml(decoded.text) : readMarkdown(decoded.text);
    return 'problem' in read
      ? read
      : { document: { ...read.document, notes: [...decoded.notes, ...read.document.notes] } };
  } catch {
    // What is nested thousands deep, for one.
    return { problem: 'What is in it is too involved to be read.' };
  }
}
