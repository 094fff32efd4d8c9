/** What a test says of its value, after a noun of one: "is at least 100", "is not filled in"; and when, after a verb. */
import { listOf, type Test, TODAY, typeOf } from '../condition';
import { listed } from '../english';
import { dayInWords, type Vocabulary } from '../site';
import { inQuotes, inSentence } from './words';

/** The values of a test in quotes: “Fell” or “Tarn”. */
export const quote = (value: Test['value']): string =>
  listed(
    listOf(value).map((one) => (typeof one === 'number' ? String(one) : inQuotes(one))),
    'or',
  );

/** What a test says of its value; `there` is how it is said that there is one. */
export function predicate(
  test: Test,
  vocabulary: Vocabulary,
  holds: boolean,
  there: 'filled in' | 'known' | 'given' | 'there',
): string {
  const type = typeOf(test, vocabulary);
  const but = (holding: string) => (holds ? `is ${holding}` : `is ${there} but not ${holding}`);
  const [first, second] = listOf(test.value);
  switch (test.op) {
    case 'is set':
    case 'is not set':
      return `${(test.op === 'is set') === holds ? 'is' : 'is not'} ${there}`;
    case 'is yes':
    case 'is no':
      return (test.op === 'is yes') === holds ? 'is yes' : 'is no';
    case 'contains':
      return holds ? `contains ${quote(test.value)}` : `is ${there} without containing ${quote(test.value)}`;
    case 'starts with':
      return holds
        ? `starts with ${quote(test.value)}`
        : `is ${there} without starting with ${quote(test.value)}`;
    case 'ends with':
      return holds
        ? `ends with ${quote(test.value)}`
        : `is ${there} without ending with ${quote(test.value)}`;
    case 'at least':
      return holds ? `is at least ${first}` : `is less than ${first}`;
    case 'at most':
      return holds ? `is at most ${first}` : `is more than ${first}`;
    case 'between':
      return but(type === 'date' ? span(test) : `between ${first} and ${second}`);
    case 'before':
    case 'after':
    case 'within the last':
    case 'within the next':
    case 'at least ago':
      return but(span(test));
    default: {
      const other = (test.op === 'is not') === holds;
      return `is ${other ? 'other than ' : ''}${shown(test, type)}`;
    }
  }
}

const shown = (test: Test, type: ReturnType<typeof typeOf>): string =>
  type === 'date'
    ? dayWords(String(test.value))
    : test.fact === 'profile' && type === 'choice'
      ? listed(listOf(test.value).map(String).map(inSentence), 'or')
      : quote(test.value);

const dayWords = (day: string): string => (day === TODAY ? 'today' : dayInWords(day));

/** When, after a verb: "before 1 December 2026", "but not within the last 30 days". */
export const when = (test: Test, holds: boolean): string => `${holds ? '' : 'but not '}${span(test)}`;

function span(test: Test): string {
  const [first = '', second = ''] = listOf(test.value).map(String);
  const days = first === '1' ? 'day' : 'days';
  switch (test.op) {
    case 'before':
    case 'after':
      return `${test.op} ${dayWords(first)}`;
    case 'between':
      return `between ${dayWords(first)} and ${dayWords(second)}`;
    case 'within the last':
    case 'within the next':
      return `${test.op} ${first} ${days}`;
    case 'at least ago':
      return `at least ${first} ${days} ago`;
    default:
      return first === TODAY ? 'today' : `on ${dayWords(first)}`;
  }
}
