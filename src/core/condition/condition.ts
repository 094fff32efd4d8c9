import type { GroupId, LevelId, RoleId } from '../ids';

/** A test of whether the visitor is signed in. */
export interface SignedInTest {
  readonly kind: 'test';
  readonly fact: 'signed in';
  readonly op: 'is';
}

/** A test of whether the visitor has a role. */
export interface RoleTest {
  readonly kind: 'test';
  readonly fact: 'role';
  readonly op: 'includes';
  readonly value: RoleId;
}

/** A test of whether the visitor is in a group. */
export interface GroupTest {
  readonly kind: 'test';
  readonly fact: 'group';
  readonly op: 'includes';
  readonly value: GroupId;
}

/** A comparison of the visitor's level by rank. *At least* and *exactly* are different questions. */
export interface LevelComparison {
  readonly kind: 'test';
  readonly fact: 'level';
  readonly op: 'at least' | 'exactly' | 'at most';
  readonly value: LevelId;
}

/** A test of whether the visitor has any level at all: never unknown. */
export interface LevelPresence {
  readonly kind: 'test';
  readonly fact: 'level';
  readonly op: 'is set' | 'is not set';
}

/** One comparison of one fact. */
export type Test = SignedInTest | RoleTest | GroupTest | LevelComparison | LevelPresence;

/** Tests joined by and, or, not. `all` of nothing is everyone; `any` of nothing is nobody. */
export type Condition =
  | { readonly kind: 'all'; readonly of: readonly Condition[] }
  | { readonly kind: 'any'; readonly of: readonly Condition[] }
  | { readonly kind: 'not'; readonly of: Condition }
  | Test;

export const all = (...of: readonly Condition[]): Condition => ({ kind: 'all', of });
export const any = (...of: readonly Condition[]): Condition => ({ kind: 'any', of });
export const not = (of: Condition): Condition => ({ kind: 'not', of });

export const everyone: Condition = all();
export const nobody: Condition = any();
export const signedIn: Condition = { kind: 'test', fact: 'signed in', op: 'is' };
export const guests: Condition = not(signedIn);
export const hasRole = (value: RoleId): Condition => ({ kind: 'test', fact: 'role', op: 'includes', value });
export const inGroup = (value: GroupId): Condition => ({
  kind: 'test',
  fact: 'group',
  op: 'includes',
  value,
});
export const level = (op: LevelComparison['op'], value: LevelId): Condition => ({
  kind: 'test',
  fact: 'level',
  op,
  value,
});
export const hasLevel: Condition = { kind: 'test', fact: 'level', op: 'is set' };
export const hasNoLevel: Condition = { kind: 'test', fact: 'level', op: 'is not set' };

/** Every test in a condition, in reading order, repeats included. */
export function testsIn(condition: Condition): readonly Test[] {
  switch (condition.kind) {
    case 'all':
    case 'any':
      return condition.of.flatMap(testsIn);
    case 'not':
      return testsIn(condition.of);
    case 'test':
      return [condition];
    default:
      return condition satisfies never;
  }
}

/** A text that is equal for equal conditions, for sharing and comparing. */
export function keyOf(condition: Condition): string {
  switch (condition.kind) {
    case 'all':
    case 'any':
      return `${condition.kind}(${condition.of.map(keyOf).join(',')})`;
    case 'not':
      return `not(${keyOf(condition.of)})`;
    case 'test':
      return JSON.stringify([condition.fact, condition.op, 'value' in condition ? condition.value : null]);
    default:
      return condition satisfies never;
  }
}
