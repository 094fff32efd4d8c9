/** Tests that are whole from the start, as the composer makes them when a fact is chosen. */
import {
  type Audience,
  type Condition,
  catalogue,
  choicesFor,
  type FactName,
  factNamed,
  namesOf,
  type Operator,
  type OptionalValue,
  operatorsFor,
  type Test,
  type TestValue,
  thingsFor,
  typeOf,
  type Vocabulary,
} from '@/core';
import type { OptionGroup } from '@/ui';

/** What can be chosen as a fact: one of the catalogue, a profile field by itself, or an audience. */
export type FactChoice = string;

const FIELD = 'profile ';
const AUDIENCE = 'audience';

/** The choice that a part of a condition stands for. */
export const choiceOf = (part: Test | Extract<Condition, { kind: 'audience' }>): FactChoice =>
  part.kind === 'audience' ? AUDIENCE : part.fact === 'profile' ? FIELD + part.subject : part.fact;

/** Every fact there is on this site, under headings. */
export function factChoices(vocabulary: Vocabulary): readonly OptionGroup<FactChoice>[] {
  const { fields, audiences } = vocabulary;
  const facts = (wanted: (fact: (typeof catalogue)[number]) => boolean) =>
    catalogue.filter(wanted).map(({ name, label }) => ({ value: name as FactChoice, label }));
  const named = (kind: Parameters<typeof namesOf>[1]) => namesOf(vocabulary, kind).length > 0;
  const there = (fact: (typeof catalogue)[number]) =>
    (fact.subject === null || fact.subject === 'text' || named(fact.subject)) &&
    (fact.values === null || named(fact.values));
  return [
    {
      heading: 'The visitor',
      options: facts((fact) => fact.of === 'visitor' && fact.subject === null && there(fact)),
    },
    {
      heading: 'Profile',
      options: fields.map(({ id, name }) => ({ value: FIELD + id, label: capitalised(name) })),
    },
    {
      heading: 'Bought and learned',
      options: facts(
        (fact) => fact.subject !== null && fact.subject !== 'field' && fact.of === 'visitor' && there(fact),
      ),
    },
    {
      heading: 'Audiences',
      options: audiences.length > 0 ? [{ value: AUDIENCE, label: 'In an audience' }] : [],
    },
    { heading: 'The item', options: facts((fact) => fact.of.endsWith('item') && there(fact)) },
    { heading: 'When and from where', options: facts((fact) => fact.of === 'request' && !fact.fakeable) },
    {
      heading: 'What the browser says (can be made up)',
      options: facts((fact) => fact.of === 'request' && fact.fakeable),
    },
  ].filter(({ options }) => options.length > 0);
}

const capitalised = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** The part of a condition that a choice begins with. */
export function partFor(
  choice: FactChoice,
  vocabulary: Vocabulary,
): Test | Extract<Condition, { kind: 'audience' }> {
  if (choice === AUDIENCE)
    return { kind: 'audience', audience: (vocabulary.audiences[0]?.id ?? '') as Audience['id'] };
  if (choice.startsWith(FIELD)) return newTest('profile', vocabulary, choice.slice(FIELD.length));
  return newTest(choice as FactName, vocabulary);
}

/** A test of a fact with the first operator and a value that makes sense. */
export function newTest(name: FactName, vocabulary: Vocabulary, about?: string): Test {
  const { subject } = factNamed(name);
  const chosen =
    about ??
    (subject === null ? undefined : subject === 'text' ? 'ref' : (namesOf(vocabulary, subject)[0]?.id ?? ''));
  const begun = { fact: name, ...(chosen !== undefined && { subject: chosen }) };
  const operators = operatorsFor(begun, vocabulary);
  const [first] = operators;
  const isText = typeOf(begun, vocabulary) === 'text' && name !== 'person';
  const preferred = isText
    ? operators.find(({ op }) => op === 'is set')
    : name === 'joined'
      ? operators.find(({ op }) => op === 'at least ago')
      : name === 'date'
        ? operators.find(({ op }) => op === 'after')
        : name === 'weekday'
          ? operators.find(({ op }) => op === 'one of')
          : name === 'purchase'
            ? operators.find(({ op }) => op === 'within the last')
            : first;
  return withOperator({ kind: 'test', ...begun, op: 'is' }, preferred ?? first, vocabulary);
}

/** A test asked in another way; its value stays if it still fits. */
export function withOperator(test: Test, operator: Operator | undefined, vocabulary: Vocabulary): Test {
  if (!operator) return test;
  const { kind, fact, subject } = test;
  const made = { kind, fact, ...(subject !== undefined && { subject }), op: operator.op };
  const value = valueFor(made, operator, test.value, vocabulary);
  return { ...made, ...(value !== undefined && { value }) };
}

function valueFor(
  test: Pick<Test, 'fact' | 'subject'>,
  operator: Operator,
  before: OptionalValue,
  vocabulary: Vocabulary,
): OptionalValue {
  const first = Array.isArray(before) ? before[0] : before;
  const one = (usual: string | number): string | number =>
    typeof first === typeof usual && first !== undefined && first !== '' ? (first as string | number) : usual;
  const usual = usualValue(test, vocabulary);
  switch (operator.takes) {
    case 'nothing':
      return undefined;
    case 'days':
      return typeof first === 'number' ? first : 30;
    case 'one':
      return one(usual);
    case 'several':
      return (Array.isArray(before) && before.length > 0 ? before : [one(usual)]) as TestValue;
    case 'two': {
      if (Array.isArray(before) && before.length === 2) return before;
      if (test.fact === 'time') return ['18:00', '06:00'];
      return [one(usual), one(usual)] as TestValue;
    }
    default:
      return operator.takes satisfies never;
  }
}

function usualValue(test: Pick<Test, 'fact' | 'subject'>, vocabulary: Vocabulary): string | number {
  const [thing] = thingsFor(test.fact, vocabulary);
  if (thing) return thing.id;
  const [choice] = choicesFor(test, vocabulary);
  if (choice !== undefined) return choice;
  switch (typeOf(test, vocabulary)) {
    case 'number':
      return 1;
    case 'share':
      return 10;
    case 'date':
      return 'today';
    case 'time':
      return '18:00';
    case 'network':
      return '10.0.0.0/8';
    case 'language':
      return 'en';
    default:
      return '';
  }
}
