/**
 * What is wrong with the shape of what comes from outside, in words that say how to mend it: wherever a form has no words of
 * its own for it. Loading this tells the library that reads forms.
 */
import { z } from 'zod';
import { counted, listed } from '@/core';

const TYPES: Readonly<Record<string, string>> = {
  string: 'a text',
  number: 'a number',
  int: 'a whole number',
  boolean: 'true or false',
  array: 'a list',
  object: 'an object',
  record: 'an object',
  null: 'null',
  undefined: 'left out',
};

/** Keys come from whoever sent them: so many are said, and so much of each. */
const MOST_SAID = 5;
const LONGEST_SAID = 40;

type Issue = z.core.$ZodRawIssue;

/** What an issue is about, as a sentence begins. */
function itOf({ path = [] }: Issue): string {
  const last = path.at(-1);
  if (last === undefined) return 'This';
  return typeof last === 'number' ? `Entry ${last + 1}` : quoted(last);
}

function quoted(value: unknown): string {
  const text = String(value);
  return `"${text.length > LONGEST_SAID ? `${text.slice(0, LONGEST_SAID)}…` : text}"`;
}

const oneOf = (values: readonly unknown[]): string =>
  listed(
    values.map((value) => (typeof value === 'string' ? quoted(value) : String(value))),
    'or',
  );

/** What is counted of a value of some origin, and how there is less of it; of others the value itself is a number. */
const COUNTED: Readonly<Record<string, { readonly unit: string; readonly less: string }>> = {
  string: { unit: 'letter', less: 'Shorten it.' },
  array: { unit: 'entry', less: 'Take some out.' },
};

function tooMuch(it: string, { origin, maximum, inclusive }: z.core.$ZodIssueTooBig): string {
  const of = COUNTED[origin];
  return of
    ? `${it} has more than ${counted(Number(maximum), of.unit)}. ${of.less}`
    : `${it} must be ${inclusive === false ? 'less than' : 'at most'} ${maximum}.`;
}

function tooLittle(it: string, { origin, minimum, inclusive }: z.core.$ZodIssueTooSmall): string {
  const of = COUNTED[origin];
  if (!of) return `${it} must be ${inclusive === false ? 'more than' : 'at least'} ${minimum}.`;
  return Number(minimum) === 1
    ? `${it} is empty. Fill it in.`
    : `${it} needs at least ${counted(Number(minimum), of.unit)}.`;
}

function unknownKeys(keys: readonly string[]): string {
  const more = keys.length - MOST_SAID;
  const said = listed([...keys.slice(0, MOST_SAID).map(quoted), ...(more > 0 ? [`${more} more`] : [])]);
  return keys.length === 1
    ? `${said} is not known here. Take it out, or mend its name.`
    : `${said} are not known here. Take them out, or mend their names.`;
}

/** Says what is wrong with a value, and how to mend it. */
export function shapeProblem(issue: Issue): string {
  const it = itOf(issue);
  switch (issue.code) {
    case 'invalid_type':
      return `${it} ${issue.input === undefined ? 'is missing: it' : 'can’t be used as it is: it'} must be ${TYPES[issue.expected] ?? 'something else'}.`;
    case 'invalid_value':
      return `${it} must be ${oneOf(issue.values)}.`;
    case 'too_big':
      return tooMuch(it, issue as z.core.$ZodIssueTooBig);
    case 'too_small':
      return tooLittle(it, issue as z.core.$ZodIssueTooSmall);
    case 'unrecognized_keys':
      return unknownKeys(issue.keys);
    case 'not_multiple_of':
      return `${it} must be a multiple of ${issue.divisor}.`;
    case 'invalid_union': {
      const { options } = issue as { readonly options?: readonly unknown[] };
      return options && options.length > 0
        ? `${it} must be ${oneOf(options)}.`
        : `${it} is none of what can stand there.`;
    }
    default:
      return `${it} does not have the form of what can stand there.`;
  }
}

z.config({ localeError: shapeProblem });
