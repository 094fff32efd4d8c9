/**
 * Texts that can't be kept: the database has no place for NUL, and a surrogate without its other half is no character
 * (Unicode 15, D75). They are looked for where anything comes in.
 */

/** Where such a text is, and a sentence that says so. */
export interface Unkept {
  readonly path: string;
  readonly message: string;
}

// Read by characters, a surrogate that has its other half is none.
const HALF = /\p{Surrogate}/u;

const wrongIn = (text: string): string | null =>
  text.includes('\0')
    ? 'A text holds the character NUL, which can’t be kept. Take it out.'
    : !HALF.test(text)
      ? null
      : 'A text holds half of a character, which can’t be kept. Write it anew.';

/** The first text in a plain value, names of its fields included, that can't be kept; null when all can. */
export function unkeptIn(value: unknown): Unkept | null {
  // A list of its own instead of recursion: what comes in may be nested as deep as it likes.
  const waiting: { readonly value: unknown; readonly path: string }[] = [{ value, path: '' }];
  for (let one = waiting.pop(); one !== undefined; one = waiting.pop()) {
    if (typeof one.value === 'string') {
      const message = wrongIn(one.value);
      if (message !== null) return { path: one.path || 'the beginning', message };
    } else if (typeof one.value === 'object' && one.value !== null) {
      for (const [key, part] of Object.entries(one.value).reverse()) {
        const message = wrongIn(key);
        if (message !== null) return { path: one.path || 'the beginning', message };
        if (typeof part === 'string' || typeof part === 'object')
          waiting.push({ value: part, path: one.path === '' ? key : `${one.path}.${key}` });
      }
    }
  }
  return null;
}
