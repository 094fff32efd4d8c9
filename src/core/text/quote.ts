/** Words that mean something in the text form, so that a name like one of them is quoted. */
import { catalogue } from '../condition/catalogue';
import { OPERATORS } from '../condition/operators';

const RESERVED = new Set(
  [
    'and or not everyone nobody all any of audience id today',
    ...catalogue.map(({ phrase }) => phrase),
    ...Object.values(OPERATORS).flatMap((list) => list.flatMap(({ words, suffix }) => [words, suffix ?? ''])),
  ].flatMap((words) => words.split(' ')),
);

export const isReserved = (word: string): boolean => RESERVED.has(word);

/** A text in quotes. */
export const quoted = (text: string): string => `"${text.replace(/[\\"]/g, '\\$&')}"`;

/** A text bare where that is unmistakable, else in quotes. */
export const bareOrQuoted = (text: string): string =>
  /^[a-z][a-z0-9_-]*$/.test(text) && !isReserved(text) ? text : quoted(text);
