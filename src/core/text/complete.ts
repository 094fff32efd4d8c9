/** Completion: what could stand where the cursor is. */
import type { Vocabulary } from '../site/vocabulary';
import { type Expectation, parseCondition } from './parse';
import { tokensOf } from './tokens';

/** What could be written at a place in a text. */
export interface Completions {
  /** The part that a choice replaces, up to the cursor. */
  readonly from: number;
  readonly to: number;
  readonly options: readonly Expectation[];
}

/** The completions at a place, those that begin like what is being typed there. */
export function completionsAt(text: string, cursor: number, vocabulary: Vocabulary): Completions {
  const before = text.slice(0, cursor);
  const tokens = tokensOf(before);
  const last = tokens.at(-2);
  const typing = last !== undefined && last.to === cursor && (last.kind === 'word' || last.kind === 'odd');
  const from = typing ? last.from : cursor;
  const typed = (typing ? last.raw : '').replace(/^"/, '').toLowerCase();
  // A mark that can't be anything, so that even a text that is whole says what could follow.
  const parsed = parseCondition(`${before.slice(0, from)} ¤`, vocabulary);
  const expected = parsed.ok ? [] : parsed.error.found === '¤' ? parsed.error.expected : [];
  const options = expected.filter(({ insert }) => {
    const plain = insert.replace(/^"/, '').toLowerCase();
    return insert !== '' && plain !== typed && plain.includes(typed);
  });
  const rank = (one: Expectation) => (one.insert.replace(/^"/, '').toLowerCase().startsWith(typed) ? 0 : 1);
  return { from, to: cursor, options: options.toSorted((a, b) => rank(a) - rank(b)) };
}
