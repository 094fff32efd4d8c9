/**
 * Evaluation in two forms: a compiled closure for deciding, and a trace for explaining. They answer alike;
 * the tests hold them against each other and against a naive reading.
 */
import { asId } from '../ids';
import { groupsAt, levelAt, rolesAt } from '../site/granted';
import type { Item } from '../site/item';
import { type RequestFacts, requestAt } from '../site/request';
import { guest, type VisitorFacts } from '../site/visitor';
import type { Vocabulary } from '../site/vocabulary';
import { soundAudiences } from './audience';
import { factNamed, operatorOf, typeOf } from './catalogue';
import { problemOf } from './check';
import { type Condition, keyOf, type Test } from './condition';
import type { Reader } from './facts';
import { fold, foldPushed } from './fold';
import type { Operator } from './operators';
import { and, FALSE, known, not, or, TRUE, type Truth, UNKNOWN } from './truth';

/** Answers whether a condition is true of a visitor, an item and a request. Unknown is not true. */
export type Predicate = (visitor: VisitorFacts, item: Item | null, request: RequestFacts) => boolean;

/** Answers what a test comes to. */
export type Evaluator = (visitor: VisitorFacts, item: Item | null, request: RequestFacts) => Truth;

/** Compiles conditions against one vocabulary; equal conditions get the same closure. */
export type ConditionCompiler = (condition: Condition) => Predicate;

/**
 * Makes a compiler. A gate only asks "is it true?", so a condition is compiled to a two-valued closure by
 * pushing negation down to the tests: `not c` is true exactly when `c` is false, and each test knows both when
 * it is true and when it is false (neither, when it is unknown). That needs no third value at run time.
 */
export function conditionCompiler(vocabulary: Vocabulary): ConditionCompiler {
  const shared = new Map<string, Predicate>();
  const sound = soundAudiences(vocabulary.audiences);
  const once = (part: Condition, wanted: boolean, make: () => Predicate): Predicate => {
    const key = `${wanted}${keyOf(part)}`;
    const found = shared.get(key) ?? make();
    shared.set(key, found);
    return found;
  };
  const build = (condition: Condition, wanted: boolean): Predicate =>
    once(condition, wanted, () =>
      foldPushed<Predicate>(
        condition,
        {
          all: every,
          any: some,
          audience: ({ audience }, holds) => {
            const found = sound.get(audience);
            return found ? build(found.who, holds) : never;
          },
          test: (test, holds) => once(test, holds, () => compileTest(test, holds, vocabulary)),
        },
        wanted,
      ),
    );
  return (condition) => build(condition, true);
}

const never: Predicate = () => false;

// Up to four parts are by far the most common; spelling them out is quicker than going through a list.
function every(parts: readonly Predicate[]): Predicate {
  const [a, b, c, d, ...rest] = parts;
  if (!a) return () => true;
  if (!b) return a;
  if (!c) return (visitor, item, request) => a(visitor, item, request) && b(visitor, item, request);
  if (!d)
    return (visitor, item, request) =>
      a(visitor, item, request) && b(visitor, item, request) && c(visitor, item, request);
  const four: Predicate = (visitor, item, request) =>
    a(visitor, item, request) &&
    b(visitor, item, request) &&
    c(visitor, item, request) &&
    d(visitor, item, request);
  return rest.length === 0 ? four : every([four, ...rest]);
}

function some(parts: readonly Predicate[]): Predicate {
  const [a, b, c, d, ...rest] = parts;
  if (!a) return never;
  if (!b) return a;
  if (!c) return (visitor, item, request) => a(visitor, item, request) || b(visitor, item, request);
  if (!d)
    return (visitor, item, request) =>
      a(visitor, item, request) || b(visitor, item, request) || c(visitor, item, request);
  const four: Predicate = (visitor, item, request) =>
    a(visitor, item, request) ||
    b(visitor, item, request) ||
    c(visitor, item, request) ||
    d(visitor, item, request);
  return rest.length === 0 ? four : some([four, ...rest]);
}

// What a level comes to depends on nothing else.
const anyTime = requestAt({ today: '2000-01-01', minute: 0, weekday: 'Saturday' });

/** The fast forms of the tests that most gates are made of; the others go through {@link evaluatorOf}. */
function compileTest(test: Test, wanted: boolean, vocabulary: Vocabulary): Predicate {
  if (problemOf(test, vocabulary) !== null) return never;
  const value = String(test.value);
  switch (test.fact) {
    case 'signed in':
      return (visitor) => visitor.signedIn === wanted;
    case 'role':
      return (visitor, _, { today }) => {
        const roles = rolesAt(visitor, today);
        return roles !== null && roles.includes(asId(value)) === wanted;
      };
    case 'group':
      return (visitor, _, { today }) => {
        const groups = groupsAt(visitor, today);
        return groups !== null && groups.includes(asId(value)) === wanted;
      };
    case 'level': {
      const evaluate = evaluatorOf(test, vocabulary);
      const truth = wanted ? TRUE : FALSE;
      const { levels: ranks } = vocabulary;
      const levels = [null, ...ranks.map(({ id }) => id)].filter(
        (level) => evaluate({ ...guest, level }, null, anyTime) === truth,
      );
      if (test.op === 'is set' || test.op === 'is not set') {
        const set = (test.op === 'is set') === wanted;
        return (visitor, _, { today }) => (levelAt(visitor, today, ranks) !== null) === set;
      }
      return (visitor, _, { today }) => {
        const level = levelAt(visitor, today, ranks);
        return level !== null && levels.includes(level);
      };
    }
    case 'profile': {
      const comparison = comparisonOf(test, vocabulary);
      if (comparison === null) return compileSlowly(test, wanted, vocabulary);
      const { read, compare } = comparison;
      return (visitor, item, request) => {
        const met = read(visitor, item, request);
        return met !== null && compare(met, request) === wanted;
      };
    }
    default:
      return compileSlowly(test, wanted, vocabulary);
  }
}

function compileSlowly(test: Test, wanted: boolean, vocabulary: Vocabulary): Predicate {
  const evaluate = evaluatorOf(test, vocabulary);
  const truth = wanted ? TRUE : FALSE;
  return (visitor, item, request) => evaluate(visitor, item, request) === truth;
}

/** Answers what a test comes to of what was read of its fact; null where that is missing. */
export type Judge = (met: ReturnType<Reader>, request: RequestFacts) => Truth;

const unknown: Judge = () => UNKNOWN;

/**
 * What a test means, in three values. Unknown when the fact is missing or of another type, or when the test is not one
 * of this site's: an operator the fact does not have, a name that is gone.
 */
export function evaluatorOf(test: Test, vocabulary: Vocabulary): Evaluator {
  const judge = judgeOf(test, vocabulary);
  if (judge === unknown) return () => UNKNOWN;
  const read = factNamed(test.fact).read(test.subject ?? '', vocabulary);
  return (visitor, item, request) => judge(read(visitor, item, request), request);
}

/** The same for what was read already: one reading may be judged by many tests. */
const judgeOf = (test: Test, vocabulary: Vocabulary): Judge =>
  problemOf(test, vocabulary) === null ? comparingJudge(test, vocabulary) : unknown;

/**
 * The same where what a test names may be gone: ids are compared, and they never come back. A test that is badly written is
 * unknown all the same.
 */
export function comparingJudge(test: Test, vocabulary: Vocabulary): Judge {
  const operator = operatorOf(test, vocabulary);
  const type = typeOf(test, vocabulary);
  if (!operator || type === null || problemOf(test, vocabulary)?.gone === false) return unknown;
  if (test.op === 'is set') return (met) => known(met !== null);
  if (test.op === 'is not set') return (met) => known(met === null);
  if (type === 'set') {
    const value = String(test.value);
    return (met) => (met === null ? UNKNOWN : known((met as readonly string[]).includes(value)));
  }
  if (type === 'rank') {
    const ranks = new Map<string, number>(vocabulary.levels.map((level, rank) => [level.id, rank]));
    const wanted = ranks.get(String(test.value)) ?? Number.NaN;
    const holds = RANKED[test.op as keyof typeof RANKED];
    return (met) => {
      const rank = ranks.get(met as string);
      return rank === undefined ? UNKNOWN : known(holds(rank, wanted));
    };
  }
  const compare = operator.compare(test.value);
  return (met, request) => {
    const held = met === null ? null : compare(met, request);
    return held === null ? UNKNOWN : held ? TRUE : FALSE;
  };
}

/** The parts of a test that compares one known value; null for tests of presence, and for what is not this site's. */
function comparisonOf(
  test: Test,
  vocabulary: Vocabulary,
): { readonly read: Reader; readonly compare: ReturnType<Operator['compare']> } | null {
  const operator = operatorOf(test, vocabulary);
  const compares = test.op !== 'is set' && test.op !== 'is not set';
  if (!operator || !compares || typeOf(test, vocabulary) === null) return null;
  return {
    read: factNamed(test.fact).read(test.subject ?? '', vocabulary),
    compare: operator.compare(test.value),
  };
}

const RANKED = {
  'at least': (rank: number, wanted: number) => rank >= wanted,
  exactly: (rank: number, wanted: number) => rank === wanted,
  'at most': (rank: number, wanted: number) => rank <= wanted,
};

/** A condition with the truth of each of its parts. */
export interface Trace {
  readonly condition: Condition;
  readonly truth: Truth;
  readonly parts: readonly Trace[];
}

/** What a condition is asked about. */
export interface Scene {
  readonly visitor: VisitorFacts;
  readonly item: Item | null;
  readonly request: RequestFacts;
}

/** Evaluates a condition and keeps the truth of every part, skipping none. */
export const trace = (condition: Condition, scene: Scene, vocabulary: Vocabulary): Trace =>
  fold<Trace>(condition, {
    group: (parts, whole) => {
      const truths = parts.map((part) => part.truth);
      return { condition: whole, parts, truth: whole.kind === 'all' ? and(truths) : or(truths) };
    },
    not: (part, denied) => ({ condition: denied, parts: [part], truth: not(part.truth) }),
    audience: (use) => {
      const audience = soundAudiences(vocabulary.audiences).get(use.audience);
      if (!audience) return { condition: use, parts: [], truth: UNKNOWN };
      const part = trace(audience.who, scene, vocabulary);
      return { condition: use, parts: [part], truth: part.truth };
    },
    test: (test) => ({
      condition: test,
      parts: [],
      truth: evaluatorOf(test, vocabulary)(scene.visitor, scene.item, scene.request),
    }),
  });
