/**
 * The operators, by the type of the fact they compare. Each says how it is written, what value it takes and whether it
 * holds of a value that was met. Numbers are compared as numbers and days as days: what is not one makes the test
 * unknown, never zero.
 */
import { addDays, type Day, isDay } from '../site/day';
import type { RequestFacts } from '../site/request';
import type { TestValue } from './condition';
import { foldCase } from './folding';
import { isWithin, networkAddress, rangeOf } from './network';

/** The types of facts. */
export type FactType =
  /** Yes or no, said by the fact alone: "signed in". */
  | 'truth'
  /** Several things with ids, of which one is asked for: roles. */
  | 'set'
  /** A thing with an id that has a rank: the level. */
  | 'rank'
  /** Several texts, of which one is asked for: tags. */
  | 'words'
  | 'text'
  | 'choice'
  | 'number'
  | 'date'
  | 'yes/no'
  | 'time'
  | 'network'
  | 'language'
  /** Only whether there is anything. */
  | 'presence'
  /** A place in a hundred. */
  | 'share';

/** The operators there are. */
export const OPERATOR_NAMES = [
  'is',
  'includes',
  'exactly',
  'is not',
  'one of',
  'contains',
  'starts with',
  'ends with',
  'at least',
  'at most',
  'between',
  'before',
  'after',
  'within the last',
  'within the next',
  'at least ago',
  'is yes',
  'is no',
  'is set',
  'is not set',
] as const;

export type OperatorName = (typeof OPERATOR_NAMES)[number];

/** What stands behind an operator. */
export type Takes = 'nothing' | 'one' | 'several' | 'two' | 'days';

/** What a fact yields when it is known. */
export type Met = string | number | boolean | readonly string[];

export interface Operator {
  readonly op: OperatorName;
  /** How it stands in the text form, between the fact and the value. */
  readonly words: string;
  /** What stands behind the value in the text form. */
  readonly suffix?: string;
  /** How the composer words it. */
  readonly label: string;
  readonly takes: Takes;
  /** Makes the comparison with a value ready. It answers null where what was met can't be compared: unknown. */
  readonly compare: (value: TestValue | undefined) => (met: Met, request: RequestFacts) => boolean | null;
}

type Compare = Operator['compare'];

const texts =
  (holds: (met: string, wanted: string) => boolean): Compare =>
  (value) => {
    const wanted = foldCase(String(value));
    return (met) => (typeof met === 'string' ? holds(foldCase(met), wanted) : null);
  };

const oneOf: Compare = (value) => {
  const wanted = new Set(listOf(value).map((one) => foldCase(String(one))));
  return (met) => (typeof met === 'string' ? wanted.has(foldCase(met)) : null);
};

const numbers =
  (holds: (met: number, wanted: number, second: number) => boolean): Compare =>
  (value) => {
    const [first, second = first] = listOf(value).map(Number);
    if (first === undefined || second === undefined || Number.isNaN(first) || Number.isNaN(second))
      return () => null;
    return (met) => (typeof met === 'number' && !Number.isNaN(met) ? holds(met, first, second) : null);
  };

const days =
  (holds: (met: Day, wanted: Day, second: Day) => boolean): Compare =>
  (value) => {
    const [first = '', second = first] = listOf(value).map(String);
    const names = [first, second];
    if (names.some((name) => name !== TODAY && !isDay(name))) return () => null;
    return (met, { today }) =>
      isDay(met) ? holds(met, first === TODAY ? today : first, second === TODAY ? today : second) : null;
  };

/** Compares with a day so many days from today, which is worked out once a day. */
const daysFromToday =
  (sign: 1 | -1, holds: (met: Day, today: Day, then: Day) => boolean): Compare =>
  (value) => {
    const count = Number(value);
    if (!Number.isFinite(count)) return () => null;
    let known = '';
    let then = '';
    return (met, { today }) => {
      if (today !== known) {
        then = addDays(today, sign * count);
        known = today;
      }
      return isDay(met) ? holds(met, today, then) : null;
    };
  };

const truths =
  (wanted: boolean): Compare =>
  () =>
  (met) =>
    typeof met === 'boolean' ? met === wanted : null;

const times: Compare = (value) => {
  const [from, to] = listOf(value).map((one) => minuteOf(String(one)));
  if (from === undefined || to === undefined || from === null || to === null) return () => null;
  return (met) =>
    typeof met !== 'number' ? null : from <= to ? met >= from && met < to : met >= from || met < to;
};

const networks: Compare = (value) => {
  const ranges = listOf(value).map((one) => rangeOf(String(one)));
  if (ranges.some((range) => range === null)) return () => null;
  return (met) => {
    const address = typeof met === 'string' ? networkAddress(met) : null;
    if (address === null) return null;
    return ranges.some((range) => range !== null && isWithin(address, range));
  };
};

const languages: Compare = (value) => {
  const wanted = listOf(value).map((one) => foldCase(String(one)));
  return (met) => {
    const [liked] = Array.isArray(met) ? met : [];
    if (typeof liked !== 'string') return null;
    const tag = foldCase(liked);
    return wanted.some((one) => tag === one || tag.startsWith(`${one}-`));
  };
};

const inWords: Compare = (value) => {
  const wanted = foldCase(String(value));
  return (met) => (Array.isArray(met) ? met.some((one) => foldCase(one) === wanted) : null);
};

const shares: Compare = (value) => {
  const percent = Number(value);
  return (met) => (typeof met === 'number' && Number.isFinite(percent) ? met < percent : null);
};

// Presence and ranks are looked after where a test is evaluated: they need the fact itself, or the site's levels.
const never: Compare = () => () => null;

const operator = (
  op: OperatorName,
  takes: Takes,
  compare: Compare,
  more: Partial<Pick<Operator, 'words' | 'label' | 'suffix'>> = {},
): Operator => ({ op, words: op, label: op, takes, compare, ...more });

const presence = [
  operator('is set', 'nothing', never, { label: 'is filled in' }),
  operator('is not set', 'nothing', never, { label: 'is not filled in' }),
];

const equality = [
  operator(
    'is',
    'one',
    texts((met, wanted) => met === wanted),
  ),
  operator(
    'is not',
    'one',
    texts((met, wanted) => met !== wanted),
  ),
  operator('one of', 'several', oneOf, { words: 'is one of', label: 'is one of' }),
];

const dates = [
  operator(
    'is',
    'one',
    days((met, wanted) => met === wanted),
  ),
  operator(
    'before',
    'one',
    days((met, wanted) => met < wanted),
  ),
  operator(
    'after',
    'one',
    days((met, wanted) => met > wanted),
  ),
  operator(
    'between',
    'two',
    days((met, from, to) => met >= from && met <= to),
  ),
];

/** The operators of each type, in the order in which the composer offers them. */
export const OPERATORS: Readonly<Record<FactType, readonly Operator[]>> = {
  truth: [operator('is', 'nothing', truths(true), { words: '', label: 'is true' })],
  set: [operator('includes', 'one', never, { words: '', label: 'is' })],
  words: [operator('includes', 'one', inWords, { words: 'is', label: 'is' })],
  rank: [
    operator('at least', 'one', never, { label: 'or above' }),
    operator('exactly', 'one', never, { label: 'only' }),
    operator('at most', 'one', never, { label: 'or below' }),
    operator('is set', 'nothing', never, { label: 'any level at all' }),
    operator('is not set', 'nothing', never, { label: 'no level' }),
  ],
  text: [
    ...equality,
    operator(
      'contains',
      'one',
      texts((met, wanted) => met.includes(wanted)),
    ),
    operator(
      'starts with',
      'one',
      texts((met, wanted) => met.startsWith(wanted)),
    ),
    operator(
      'ends with',
      'one',
      texts((met, wanted) => met.endsWith(wanted)),
    ),
    ...presence,
  ],
  choice: [...equality, ...presence],
  number: [
    operator(
      'at least',
      'one',
      numbers((met, wanted) => met >= wanted),
    ),
    operator(
      'at most',
      'one',
      numbers((met, wanted) => met <= wanted),
    ),
    operator(
      'is',
      'one',
      numbers((met, wanted) => met === wanted),
    ),
    operator(
      'is not',
      'one',
      numbers((met, wanted) => met !== wanted),
    ),
    operator(
      'between',
      'two',
      numbers((met, from, to) => met >= from && met <= to),
    ),
    ...presence,
  ],
  date: [
    ...dates,
    operator(
      'within the last',
      'days',
      daysFromToday(-1, (met, today, then) => met >= then && met <= today),
      { suffix: 'days' },
    ),
    operator(
      'within the next',
      'days',
      daysFromToday(1, (met, today, then) => met >= today && met <= then),
      { suffix: 'days' },
    ),
    operator(
      'at least ago',
      'days',
      daysFromToday(-1, (met, _today, then) => met <= then),
      { words: 'at least', suffix: 'days ago', label: 'at least … days ago' },
    ),
    ...presence,
  ],
  'yes/no': [
    operator('is yes', 'nothing', truths(true)),
    operator('is no', 'nothing', truths(false)),
    ...presence,
  ],
  time: [operator('between', 'two', times)],
  network: [operator('one of', 'several', networks, { words: 'in', label: 'in' })],
  language: [operator('one of', 'several', languages, { words: 'is one of', label: 'is one of' })],
  presence,
  share: [operator('at most', 'one', shares, { words: '', label: 'of' })],
};

/** In place of a day: the day of the request. */
export const TODAY = 'today';

/** A value as a list, whether it is one or several. */
export const listOf = (value: TestValue | undefined): readonly (string | number)[] =>
  value === undefined ? [] : typeof value === 'string' || typeof value === 'number' ? [value] : value;

/** The minute of the day that "18:30" names, or null. */
export function minuteOf(text: string): number | null {
  const match = /^([01]\d|2[0-3]):([0-5]\d)$/.exec(text);
  return match ? Number(match[1]) * 60 + Number(match[2]) : null;
}
