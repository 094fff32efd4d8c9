/** Joining words into English, and names into sentences that they can't break. */
import { indefinite } from '../english';
import { type NameKind, nameOfId, type Vocabulary } from '../site';

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
