/** The languages that Trivet speaks to visitors. */
import { english, type Messages } from './english';
import { german } from './german';

/** Every catalogue, by the language tag (BCP 47) of its words. */
export const LANGUAGES: readonly Messages[] = [english, german];

/** What Trivet says in a language: in that, or in English where there is no catalogue of it. */
export const messagesIn = (tag: string): Messages =>
  LANGUAGES.find((one) => one.tag === tag) ??
  LANGUAGES.find((one) => one.tag === tag.split('-')[0]) ??
  english;

/** Makes something of each catalogue at most once. */
export function byMessages<Made>(make: (messages: Messages) => Made): (messages: Messages) => Made {
  const made = new Map<Messages, Made>();
  return (messages) => {
    const found = made.get(messages) ?? make(messages);
    made.set(messages, found);
    return found;
  };
}

/** A language tag as it is written (BCP 47); null where a text is none. */
export function languageTag(text: string): string | null {
  if (text.length > 35) return null;
  try {
    return Intl.getCanonicalLocales(text)[0] ?? null;
  } catch {
    return null;
  }
}

/** Scripts that are written from right to left (ISO 15924). */
const FROM_RIGHT = new Set(['Adlm', 'Arab', 'Hebr', 'Nkoo', 'Syrc', 'Thaa']);

// Working one out takes as long as drawing a small page.
let known: { readonly tag: string; readonly direction: 'ltr' | 'rtl' } = { tag: 'en', direction: 'ltr' };

/** The direction in which a language is written, by the script that is usual for it. */
export function directionOf(tag: string): 'ltr' | 'rtl' {
  if (known.tag === tag) return known.direction;
  const isRight = languageTag(tag) !== null && FROM_RIGHT.has(new Intl.Locale(tag).maximize().script ?? '');
  known = { tag, direction: isRight ? 'rtl' : 'ltr' };
  return known.direction;
}
