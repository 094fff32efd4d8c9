/** Joining words into English, and names into sentences that they can't break. */
import { type NameKind, nameOfId, type Vocabulary } from '../site';

/** "a", "a and b", "a, b and c". */
export function listed(parts: readonly string[], word: 'and' | 'or' = 'and'): string {
  if (parts.length < 2) return parts[0] ?? '';
  return `${parts.slice(0, -1).join(', ')} ${word} ${parts.at(-1)}`;
}

/** "1 member", "2 members". */
export const counted = (count: number, one: string, many = plural(one)): string =>
  `${count} ${count === 1 ? one : many}`;

/** The plural of a name, well enough for the names of levels and roles. */
export const plural = (name: string): string =>
  /(s|x|z|ch|sh)$/i.test(name)
    ? `${name}es`
    : /[^aeiou]y$/i.test(name)
      ? `${name.slice(0, -1)}ies`
      : `${name}s`;

/** With its article: "a page", "an activity". */
export const indefinite = (name: string): string => `${/^[aeiou]/i.test(name) ? 'an' : 'a'} ${name}`;

/** With a capital at the start. */
export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** A text in quotes; the closing quotes in it are doubled, so that it is seen where it ends. */
export const inQuotes = (text: string): string => `“${text.replace(/”/g, '””')}”`;

// The words that hold a sentence together: a name with one of them in it could be read as more than a name.
const HOLDING =
  /[,;:.()“”]|\b(?:and|or|but|either|both|at once|who|whose|that|which|is|are|have|by|in|at|of|with|before|after|between|within|level|everyone|nobody|everything|nothing|people|members?|guests?|owners?)\b/i;

/** A name as it stands in a sentence: in quotes where it could be read as more than a name. */
export const inSentence = (name: string): string =>
  HOLDING.test(name) || name.trim() !== name || name === '' ? inQuotes(name) : name;

/** The name of a thing as it stands in a sentence; "a group that no longer exists" when it is gone. */
export function thingInSentence(vocabulary: Vocabulary, kind: NameKind, id: string): string {
  const name = nameOfId(vocabulary, kind, id);
  return name === null ? `${indefinite(kind)} that no longer exists` : inSentence(name);
}
