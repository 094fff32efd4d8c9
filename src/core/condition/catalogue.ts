/**
 * The catalogue: every fact that a condition can test, declared once. Checking a condition, the composer's
 * choices, the sentences and evaluation all work from these entries; the site's own roles, groups and levels
 * extend them through the {@link Vocabulary}.
 */
import type { VisitorFacts } from '../site/visitor';
import type { Vocabulary } from '../site/vocabulary';
import type { Test } from './condition';
import { known, not, type Truth, UNKNOWN } from './truth';

/** The facts there are. */
export type FactName = Test['fact'];

/** A value that a test can be made with: an id and the name people know it by. */
export interface Choice {
  readonly id: string;
  readonly name: string;
}

/** One way to test a fact. */
export interface Operator {
  readonly op: Test['op'];
  /** Whether the test needs a value from the fact's choices. */
  readonly takesValue: boolean;
  /** How the composer words it, before the value. */
  readonly label: string;
  /** The truth of the test for a visitor. Unknown when the fact is missing or the value no longer exists. */
  readonly evaluate: (visitor: VisitorFacts, value: string, vocabulary: Vocabulary) => Truth;
}

/** One fact of the catalogue. */
export interface Fact {
  readonly name: FactName;
  /** How the composer names it. */
  readonly label: string;
  readonly operators: readonly Operator[];
  /** The values that a test of this fact can have on this site. */
  readonly choices: (vocabulary: Vocabulary) => readonly Choice[];
}

const membership =
  (read: (visitor: VisitorFacts) => readonly string[] | null, names: (v: Vocabulary) => readonly Choice[]) =>
  (visitor: VisitorFacts, value: string, vocabulary: Vocabulary): Truth => {
    const held = read(visitor);
    if (held === null || !names(vocabulary).some((choice) => choice.id === value)) return UNKNOWN;
    return known(held.includes(value));
  };

const ranked =
  (compare: (rank: number, wanted: number) => boolean) =>
  (visitor: VisitorFacts, value: string, vocabulary: Vocabulary): Truth => {
    const rank = vocabulary.levels.findIndex((level) => level.id === visitor.level);
    const wanted = vocabulary.levels.findIndex((level) => level.id === value);
    return rank < 0 || wanted < 0 ? UNKNOWN : known(compare(rank, wanted));
  };

const hasLevel = (visitor: VisitorFacts): Truth => known(visitor.level !== null);

/** The entries, in the order in which the composer offers them. */
export const catalogue: readonly Fact[] = [
  {
    name: 'signed in',
    label: 'Signed in',
    operators: [
      { op: 'is', takesValue: false, label: 'is signed in', evaluate: (visitor) => known(visitor.signedIn) },
    ],
    choices: () => [],
  },
  {
    name: 'level',
    label: 'Level',
    operators: [
      {
        op: 'at least',
        takesValue: true,
        label: 'or above',
        evaluate: ranked((rank, wanted) => rank >= wanted),
      },
      { op: 'exactly', takesValue: true, label: 'only', evaluate: ranked((rank, wanted) => rank === wanted) },
      {
        op: 'at most',
        takesValue: true,
        label: 'or below',
        evaluate: ranked((rank, wanted) => rank <= wanted),
      },
      { op: 'is set', takesValue: false, label: 'any level at all', evaluate: hasLevel },
      {
        op: 'is not set',
        takesValue: false,
        label: 'no level',
        evaluate: (visitor) => not(hasLevel(visitor)),
      },
    ],
    choices: (vocabulary) => vocabulary.levels,
  },
  {
    name: 'group',
    label: 'Group',
    operators: [
      {
        op: 'includes',
        takesValue: true,
        label: 'in',
        evaluate: membership(
          (visitor) => visitor.groups,
          (vocabulary) => vocabulary.groups,
        ),
      },
    ],
    choices: (vocabulary) => vocabulary.groups,
  },
  {
    name: 'role',
    label: 'Role',
    operators: [
      {
        op: 'includes',
        takesValue: true,
        label: 'is a',
        evaluate: membership(
          (visitor) => visitor.roles,
          (vocabulary) => vocabulary.roles,
        ),
      },
    ],
    choices: (vocabulary) => vocabulary.roles,
  },
];

/** The catalogue's entry for a fact. */
export function factNamed(name: FactName): Fact {
  const fact = catalogue.find((entry) => entry.name === name);
  if (!fact) throw new Error(`The catalogue has no fact "${name}".`);
  return fact;
}

/** The operator a test uses. */
export function operatorOf(test: Test): Operator {
  const operator = factNamed(test.fact).operators.find((entry) => entry.op === test.op);
  if (!operator) throw new Error(`The fact "${test.fact}" has no operator "${test.op}".`);
  return operator;
}

/** The value of a test, or an empty text for a test that takes none. */
export const testValue = (test: Test): string => ('value' in test ? test.value : '');

/** The name of a test's value on this site, or null when it no longer exists. */
export const nameOfValue = (test: Test, vocabulary: Vocabulary): string | null =>
  factNamed(test.fact)
    .choices(vocabulary)
    .find((choice) => choice.id === testValue(test))?.name ?? null;
