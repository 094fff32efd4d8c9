/**
 * Evaluation in two forms: a compiled closure for deciding, and a trace for explaining. They answer alike;
 * the tests hold them against each other.
 */
import type { VisitorFacts } from '../site/visitor';
import type { Vocabulary } from '../site/vocabulary';
import { operatorOf, testValue } from './catalogue';
import { type Condition, keyOf, type Test } from './condition';
import { and, FALSE, not, or, TRUE, type Truth } from './truth';

/** Answers whether a condition is true of a visitor. Unknown is not true. */
export type Predicate = (visitor: VisitorFacts) => boolean;

/** Compiles conditions against one vocabulary; equal conditions get the same closure. */
export type ConditionCompiler = (condition: Condition) => Predicate;

/**
 * Makes a compiler. A gate only asks "is it true?", so a condition is compiled to a two-valued closure by
 * pushing negation down to the tests: `not c` is true exactly when `c` is false, and each test knows both when
 * it is true and when it is false (neither, when it is unknown). That needs no third value at run time.
 */
export function conditionCompiler(vocabulary: Vocabulary): ConditionCompiler {
  const shared = new Map<string, Predicate>();
  const build = (condition: Condition, wanted: boolean): Predicate => {
    const key = `${wanted}${keyOf(condition)}`;
    const found = shared.get(key);
    if (found) return found;
    const made = make(condition, wanted);
    shared.set(key, made);
    return made;
  };
  const make = (condition: Condition, wanted: boolean): Predicate => {
    switch (condition.kind) {
      case 'all':
        return (wanted ? every : some)(condition.of.map((part) => build(part, wanted)));
      case 'any':
        return (wanted ? some : every)(condition.of.map((part) => build(part, wanted)));
      case 'not':
        return build(condition.of, !wanted);
      case 'test':
        return compileTest(condition, wanted, vocabulary);
      default:
        return condition satisfies never;
    }
  };
  return (condition) => build(condition, true);
}

const never: Predicate = () => false;

// Two and three parts are by far the most common; spelling them out lets the engine inline the calls.
function every(parts: readonly Predicate[]): Predicate {
  const [a, b, c] = parts;
  if (!a) return () => true;
  if (!b) return a;
  if (!c) return (visitor) => a(visitor) && b(visitor);
  if (parts.length === 3) return (visitor) => a(visitor) && b(visitor) && c(visitor);
  return (visitor) => {
    for (const part of parts) if (!part(visitor)) return false;
    return true;
  };
}

function some(parts: readonly Predicate[]): Predicate {
  const [a, b, c] = parts;
  if (!a) return never;
  if (!b) return a;
  if (!c) return (visitor) => a(visitor) || b(visitor);
  if (parts.length === 3) return (visitor) => a(visitor) || b(visitor) || c(visitor);
  return (visitor) => {
    for (const part of parts) if (part(visitor)) return true;
    return false;
  };
}

/** The fast form of one test. The catalogue's `evaluate` says what it means; the tests compare the two. */
function compileTest(test: Test, wanted: boolean, vocabulary: Vocabulary): Predicate {
  switch (test.fact) {
    case 'signed in':
      return (visitor) => visitor.signedIn === wanted;
    case 'role': {
      const { value } = test;
      if (!vocabulary.roles.some((role) => role.id === value)) return never;
      return (visitor) => visitor.roles !== null && visitor.roles.includes(value) === wanted;
    }
    case 'group': {
      const { value } = test;
      if (!vocabulary.groups.some((group) => group.id === value)) return never;
      return (visitor) => visitor.groups !== null && visitor.groups.includes(value) === wanted;
    }
    case 'level': {
      if (test.op === 'is set' || test.op === 'is not set') {
        const set = (test.op === 'is set') === wanted;
        return (visitor) => (visitor.level !== null) === set;
      }
      const { evaluate } = operatorOf(test);
      const value = testValue(test);
      const truth = wanted ? TRUE : FALSE;
      const levels = vocabulary.levels
        .map((level) => level.id)
        .filter(
          (id) => evaluate({ signedIn: true, roles: [], groups: [], level: id }, value, vocabulary) === truth,
        );
      return (visitor) => visitor.level !== null && levels.includes(visitor.level);
    }
    default:
      return test satisfies never;
  }
}

/** A condition with the truth of each of its parts for one visitor. */
export interface Trace {
  readonly condition: Condition;
  readonly truth: Truth;
  readonly parts: readonly Trace[];
}

/** Evaluates a condition for one visitor and keeps the truth of every part, skipping none. */
export function trace(condition: Condition, visitor: VisitorFacts, vocabulary: Vocabulary): Trace {
  switch (condition.kind) {
    case 'all':
    case 'any': {
      const parts = condition.of.map((part) => trace(part, visitor, vocabulary));
      const truths = parts.map((part) => part.truth);
      return { condition, parts, truth: condition.kind === 'all' ? and(truths) : or(truths) };
    }
    case 'not': {
      const part = trace(condition.of, visitor, vocabulary);
      return { condition, parts: [part], truth: not(part.truth) };
    }
    case 'test':
      return {
        condition,
        parts: [],
        truth: operatorOf(condition).evaluate(visitor, testValue(condition), vocabulary),
      };
    default:
      return condition satisfies never;
  }
}
