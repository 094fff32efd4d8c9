/** Checking conditions against the catalogue and the site's names, with sentences that say how to mend what is wrong. */
import { isDay } from '../site/day';
import { namesOf, type Vocabulary } from '../site/vocabulary';
import { choicesFor, factNamed, operatorOf, operatorsFor, typeOf } from './catalogue';
import type { Test } from './condition';
import { foldCase } from './folding';
import { rangeOf } from './network';
import { listOf, minuteOf, TODAY } from './operators';

/** The most characters that a condition's text may have. */
export const LONGEST_CONDITION = 20_000;
/** The most tests in one condition. */
export const MOST_TESTS = 200;
/** The deepest that groups may be nested. */
export const DEEPEST = 40;
const LONGEST_VALUE = 500;
const MOST_VALUES = 100;

/** What is wrong with a test. */
export interface TestProblem {
  /** What it names is not there any more: the test is unknown of everybody, but it is not badly written. */
  readonly gone: boolean;
  readonly message: string;
}

const wrong = (message: string): TestProblem => ({ gone: false, message });
const gone = (kind: string, name: string | number | undefined): TestProblem => ({
  gone: true,
  message: `There is no ${kind} “${name}” any more. Choose another.`,
});

/** What is wrong with a test on this site, or null. */
export function problemOf(test: Test, vocabulary: Vocabulary): TestProblem | null {
  const { subject: subjectKind, label, values } = factNamed(test.fact);
  if (!isValue(test.value)) return wrong(`“${label}” is compared with something that is no value.`);
  if ((subjectKind === null) !== (test.subject === undefined))
    return wrong(subjectKind === null ? `“${label}” is not of anything.` : `Say what “${label}” is about.`);
  if (subjectKind === 'text') {
    if (!test.subject || test.subject.length > LONGEST_VALUE)
      return wrong(`Name the parameter, in at most ${LONGEST_VALUE} letters.`);
  } else if (
    subjectKind !== null &&
    !namesOf(vocabulary, subjectKind).some(({ id }) => id === test.subject)
  ) {
    return gone(subjectKind, test.subject);
  }
  const operator = operatorOf(test, vocabulary);
  if (!operator) {
    const can = operatorsFor(test, vocabulary).map(({ op }) => `“${op}”`);
    return wrong(`“${label}” can’t be asked with “${test.op}”; it has ${can.join(', ')}.`);
  }
  const given = listOf(test.value);
  const wanted = { nothing: 0, one: 1, days: 1, two: 2, several: null }[operator.takes];
  const many = Array.isArray(test.value);
  if (wanted === null ? !many || given.length === 0 : wanted !== given.length || many !== wanted > 1) {
    return wrong(wanted === 0 ? `“${operator.label}” takes no value.` : `Give “${label}” a value.`);
  }
  if (given.length > MOST_VALUES)
    return wrong(`That is more than ${MOST_VALUES} values. Use an audience or a group.`);
  if (operator.takes === 'days') {
    const [count] = given;
    return typeof count === 'number' && Number.isInteger(count) && count >= 0 && count <= 100_000
      ? null
      : wrong('Give a whole number of days, up to 100000.');
  }
  if (values !== null) {
    const missing = given.find((id) => !namesOf(vocabulary, values).some((one) => one.id === id));
    return missing === undefined ? null : gone(values, missing);
  }
  for (const one of given) {
    const found = problemOfValue(test, one, vocabulary);
    if (found !== null) return found;
  }
  return null;
}

/** Whether something is of the shape of a value: what is stored may be from anywhere. */
const isValue = (value: unknown): boolean =>
  value === undefined ||
  typeof value === 'string' ||
  typeof value === 'number' ||
  (Array.isArray(value) &&
    (value.every((one) => typeof one === 'string') || value.every((one) => typeof one === 'number')));

/**
 * What a test names that is gone, each as its kind and its id: "group dome-crew", "choice team Optics". None for a test of
 * which everything is there.
 */
export function goneNamesIn(test: Test, vocabulary: Vocabulary): readonly string[] {
  const { subject, values } = factNamed(test.fact);
  const isThere = (kind: Parameters<typeof namesOf>[1], id: unknown) =>
    namesOf(vocabulary, kind).some((one) => one.id === id);
  if (subject !== null && subject !== 'text' && !isThere(subject, test.subject))
    return [`${subject} ${test.subject}`];
  const given = listOf(test.value);
  if (values !== null) return given.filter((id) => !isThere(values, id)).map((id) => `${values} ${id}`);
  if (typeOf(test, vocabulary) !== 'choice') return [];
  return given
    .filter((one) => !isChoice(test, one, vocabulary))
    .map((one) => `choice ${test.subject ?? test.fact} ${one}`);
}

/** Whether a value is one of the choices of what is tested, whatever its case. */
export const isChoice = (test: Test, value: unknown, vocabulary: Vocabulary): boolean =>
  typeof value === 'string' &&
  choicesFor(test, vocabulary).some((choice) => foldCase(choice) === foldCase(value));

function problemOfValue(test: Test, value: string | number, vocabulary: Vocabulary): TestProblem | null {
  const type = typeOf(test, vocabulary);
  switch (type) {
    case 'number':
      return typeof value === 'number' && Number.isFinite(value)
        ? null
        : wrong(`“${value}” is not a number.`);
    case 'share':
      return typeof value === 'number' && value > 0 && value < 100
        ? null
        : wrong('A share is a number of percent between 0 and 100.');
    case 'date':
      return value === TODAY || isDay(value)
        ? null
        : wrong(`“${value}” is not a day. Write it like 2026-12-01.`);
    case 'time':
      return minuteOf(String(value)) !== null
        ? null
        : wrong(`“${value}” is not a time. Write it like 18:30.`);
    case 'network':
      return rangeOf(String(value)) !== null
        ? null
        : wrong(`“${value}” is not a network. Write it like 10.0.0.0/8 or 2001:db8::/32.`);
    case 'choice':
      return isChoice(test, value, vocabulary)
        ? null
        : typeof value === 'string'
          ? gone('choice', value)
          : wrong('Write what to compare with.');
    default:
      if (typeof value !== 'string' || value.trim() === '') return wrong('Write what to compare with.');
      return value.length <= LONGEST_VALUE
        ? null
        : wrong(`That text is longer than ${LONGEST_VALUE} letters.`);
  }
}
