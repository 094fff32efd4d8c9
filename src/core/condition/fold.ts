/** Walking conditions: everything that is made of a condition part by part is made by one of these two. */
import type { AudienceUse, Condition, Test } from './condition';

type Group = Extract<Condition, { kind: 'all' | 'any' }>;
type Denied = Extract<Condition, { kind: 'not' }>;

/** What to make of each kind of part, from what was made of the parts in it. */
export interface Fold<T> {
  readonly group: (parts: readonly T[], group: Group) => T;
  readonly not: (part: T, denied: Denied) => T;
  readonly audience: (use: AudienceUse) => T;
  readonly test: (test: Test) => T;
}

/** Makes something of a condition from the inside out. */
export function fold<T>(condition: Condition, to: Fold<T>): T {
  switch (condition.kind) {
    case 'all':
    case 'any':
      return to.group(
        condition.of.map((part) => fold(part, to)),
        condition,
      );
    case 'not':
      return to.not(fold(condition.of, to), condition);
    case 'audience':
      return to.audience(condition);
    case 'test':
      return to.test(condition);
    default:
      return condition satisfies never;
  }
}

/** What to make of each kind of part once no *not* is left but at tests and audiences: `holds` is false for those denied. */
export interface Pushed<T> {
  readonly all: (parts: readonly T[]) => T;
  readonly any: (parts: readonly T[]) => T;
  readonly audience: (use: AudienceUse, holds: boolean) => T;
  readonly test: (test: Test, holds: boolean) => T;
}

/**
 * Makes something of a condition with its *not*s pushed down (De Morgan): what is denied of all is denied of any, and what
 * is denied twice holds. In Kleene's logic this changes no truth value.
 */
export function foldPushed<T>(condition: Condition, to: Pushed<T>, holds = true): T {
  switch (condition.kind) {
    case 'all':
    case 'any': {
      const parts = condition.of.map((part) => foldPushed(part, to, holds));
      return (condition.kind === 'all') === holds ? to.all(parts) : to.any(parts);
    }
    case 'not':
      return foldPushed(condition.of, to, !holds);
    case 'audience':
      return to.audience(condition, holds);
    case 'test':
      return to.test(condition, holds);
    default:
      return condition satisfies never;
  }
}
