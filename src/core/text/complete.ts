/** Completion: what could stand where the cursor is. */
import type { Vocabulary } from '../site/vocabulary';
import { type CouldStand, parseCondition, type TextError } from './parse';
import { tokensOf } from './tokens';

/** What could be written at a place in a text. */
export interface Completions {
  /** The part that a choice replaces, up to the cursor. */
  readonly from: number;
  readonly to: number;
  readonly options: readonly CouldStand[];
}

/** The completions at a place, those that begin like what is being typed there. */
export const completionsAt = (text: string, cursor: number, vocabulary: Vocabulary): Completions =>
  completionsBy(text, cursor, (before) => {
    const parsed = parseCondition(before, vocabulary);
    return parsed.ok ? null : parsed.error;
  });

/** The same for whatever can say what is wrong with a text. */
export function completionsBy(
  text: string,
  cursor: number,
  errorIn: (text: string) => TextError | null,
): Completions {
  const before = text.slice(0, cursor);
  const tokens = tokensOf(before);
  const last = tokens.at(-2);
  const typing = last !== undefined && last.to === cursor && (last.kind === 'word' || last.kind === 'odd');
  const from = typing ? last.from : cursor;
  const typed = (typing ? last.raw : '').replace(/^"/, '').toLowerCase();
  // A mark that can't be anything, so that even a text that is whole says what could follow.
  const error = errorIn(`${before.slice(0, from)} ¤`);
  const expected = error?.found === '¤' ? error.expected : [];
  const options = expected.filter(({ insert }) => {
    const plain = insert.replace(/^"/, '').toLowerCase();
    return insert !== '' && plain !== typed && plain.includes(typed);
  });
  const rank = (one: CouldStand) => (one.insert.replace(/^"/, '').toLowerCase().startsWith(typed) ? 0 : 1);
  return { from, to: cursor, options: options.toSorted((a, b) => rank(a) - rank(b)) };
}
