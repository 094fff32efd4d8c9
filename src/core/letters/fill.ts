/** Filling a letter in, and what is wrong with one that somebody wrote. */
import { listed } from '../english';
import { LETTERS, type LetterKind, type LetterTemplate, namesIn } from './letters';

export const LONGEST_SUBJECT = 200;
export const LONGEST_LETTER = 5000;

const NAME = /\{([a-z]+)\}/g;

/** What a letter is filled in with, by name. What is not there is empty. */
export type LetterValues = Readonly<Record<string, string>>;

/**
 * A letter filled in. A line of which something is not there is left out. What is filled in is text: a brace in it is a brace,
 * and in a subject a line is a space.
 */
export function filledLetter({ subject, text }: LetterTemplate, values: LetterValues): LetterTemplate {
  const isThere = (line: string): boolean =>
    [...line.matchAll(NAME)].every(([, name = '']) => (values[name] ?? '') !== '');
  const fill = (line: string): string => line.replace(NAME, (_, name: string) => values[name] ?? '');
  const lines = text.split('\n').filter(isThere).map(fill);
  return {
    subject: fill(subject).replace(/\s+/g, ' ').trim(),
    text: lines
      .join('\n')
      .replace(/\n{3,}/g, '\n\n')
      .trim(),
  };
}

/** What is wrong with a letter, by part: how to mend it, next to where it is wrong. */
export function letterProblems(
  kind: LetterKind,
  { subject, text }: LetterTemplate,
): Partial<Readonly<Record<keyof LetterTemplate, string>>> {
  const inSubject = problemIn(kind, subject, LONGEST_SUBJECT) ?? oneLine(subject);
  const inText = problemIn(kind, text, LONGEST_LETTER) ?? lacksIn(kind, `${subject}\n${text}`);
  return { ...(inSubject !== null && { subject: inSubject }), ...(inText !== null && { text: inText }) };
}

const oneLine = (subject: string): string | null =>
  /[\r\n]/.test(subject) ? 'A subject is one line.' : null;

function problemIn(kind: LetterKind, written: string, longest: number): string | null {
  if (written.trim() === '') return 'Write something: a letter is not empty.';
  if (written.length > longest) return `It has at most ${longest} letters.`;
  // biome-ignore lint/suspicious/noControlCharactersInRegex: control characters are what is looked for
  if (/[\u0000-\u0008\u000b-\u001f\u007f]/.test(written.replaceAll('\r', '')))
    return 'There is something in it that is no letter. Type it anew.';
  const names = namesIn(kind);
  const can = listed(
    Object.keys(names).map((name) => `{${name}}`),
    'or',
  );
  for (const [, name = ''] of written.matchAll(NAME))
    if (!Object.hasOwn(names, name)) return `There is no {${name}} in this letter. It can be ${can}.`;
  const brace = /\{[^}\n]{0,20}\}?|\}/.exec(written.replace(NAME, ''))?.[0];
  return brace === undefined ? null : `“${brace}” is not filled in. A brace stands around a name: ${can}.`;
}

/** What somebody can't do without, and is not in the letter. */
function lacksIn(kind: LetterKind, written: string): string | null {
  const names = namesIn(kind);
  // A line with something that is not always there is not always there.
  const always = written
    .split('\n')
    .filter((line) => [...line.matchAll(NAME)].every(([, name = '']) => !names[name]?.sometimes))
    .join('\n');
  const lacks = LETTERS[kind].needs.filter((name) => !always.includes(`{${name}}`));
  return lacks.length === 0
    ? null
    : `Whoever gets it needs ${listed(lacks.map((name) => `{${name}} (${names[name]?.about})`))}. Put it in a line that is always there.`;
}
