/**
 * The catalogue: every fact that a condition can test. The site's own names extend what the entries say through the
 * {@link Vocabulary}.
 */
import type { Item } from '../site/item';
import { type Named, namesOf, type Vocabulary } from '../site/vocabulary';
import type { Test } from './condition';
import { FACT_NAMES, FACTS, type FactEntry, type FactName } from './facts';
import { type FactType, OPERATORS, type Operator } from './operators';

/** One fact of the catalogue, with everything that its entry leaves to be understood. */
export interface Fact extends Required<Omit<FactEntry, 'subject' | 'values' | 'assume'>> {
  readonly name: FactName;
  readonly subject: NonNullable<FactEntry['subject']> | null;
  readonly values: NonNullable<FactEntry['values']> | null;
  readonly assume: NonNullable<FactEntry['assume']> | null;
  /** For facts of visitor and item: all that it depends on of the item. */
  readonly dependsOn: ((item: Item) => string | null) | null;
}

const whole = (name: FactName): Fact => ({
  name,
  phrase: name,
  subject: null,
  values: null,
  choices: [],
  fakeable: false,
  private: false,
  session: false,
  always: false,
  whose: false,
  absent: 'not known',
  assume: null,
  dependsOn: null,
  ...(FACTS[name] as FactEntry),
});

const byName = new Map(FACT_NAMES.map((name) => [name, whole(name)]));

/** The facts in the order in which the composer offers them. */
export const catalogue: readonly Fact[] = [...byName.values()];

/** The catalogue's entry for a fact. */
export function factNamed(name: FactName): Fact {
  const found = byName.get(name);
  if (!found) throw new Error(`The catalogue has no fact "${name}".`);
  return found;
}

/** Whether what a test comes to depends on the item that is asked about. */
export const asksOfItem = ({ fact }: Pick<Test, 'fact'>): boolean => {
  const { of } = factNamed(fact);
  return of === 'item' || of === 'visitor and item';
};

/** The type of what a test compares on this site, or null when the profile field is gone. */
export function typeOf(test: Pick<Test, 'fact' | 'subject'>, vocabulary: Vocabulary): FactType | null {
  const { type } = factNamed(test.fact);
  return type ?? vocabulary.fields.find((field) => field.id === test.subject)?.type ?? null;
}

/** The operators that a fact of a subject has on this site; for a field that is gone, those of every type. */
export function operatorsFor(
  test: Pick<Test, 'fact' | 'subject'>,
  vocabulary: Vocabulary,
): readonly Operator[] {
  const type = typeOf(test, vocabulary);
  if (type !== null) return withoutNeedless(test.fact, OPERATORS[type]);
  return ANY_FIELD;
}

const ANY_FIELD = (['number', 'date', 'text', 'choice', 'yes/no'] as const).flatMap(
  (type) => OPERATORS[type],
);

const withoutNeedless = (name: FactName, operators: readonly Operator[]): readonly Operator[] =>
  factNamed(name).always ? operators.filter(({ op }) => op !== 'is set' && op !== 'is not set') : operators;

/** The operator that a test uses, or null when its fact has none of that name. */
export const operatorOf = (test: Test, vocabulary: Vocabulary): Operator | null =>
  operatorsFor(test, vocabulary).find((entry) => entry.op === test.op) ?? null;

/** The texts that can be chosen from, for choices. */
export const choicesFor = (
  test: Pick<Test, 'fact' | 'subject'>,
  vocabulary: Vocabulary,
): readonly string[] =>
  test.fact === 'profile'
    ? (vocabulary.fields.find((field) => field.id === test.subject)?.choices ?? [])
    : factNamed(test.fact).choices;

/** The things a test's value can be on this site; none for tests whose values have no ids. */
export function thingsFor(name: FactName, vocabulary: Vocabulary): readonly Named[] {
  const { values } = factNamed(name);
  return values === null ? [] : namesOf(vocabulary, values);
}

/** Whether visitors can make up what a test asks: what their browser says, and fields they fill in themselves. */
export const isFakeable = (test: Test, vocabulary: Vocabulary): boolean =>
  factNamed(test.fact).fakeable ||
  (test.fact === 'profile' && vocabulary.fields.some((field) => field.id === test.subject && field.editable));

/** Whether a test must not be named to visitors. */
export function isPrivate(test: Test, vocabulary: Vocabulary): boolean {
  if (factNamed(test.fact).private) return true;
  if (test.fact === 'profile')
    return vocabulary.fields.some((field) => field.id === test.subject && field.private);
  return (
    factNamed(test.fact).values === 'group' &&
    vocabulary.groups.some((group) => group.id === test.value && group.private)
  );
}
