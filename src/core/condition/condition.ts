import type { AudienceId, FieldId, GroupId, LevelId, PassphraseId, ProductId, RoleId } from '../ids';
import type { FactName } from './facts';
import { fold } from './fold';
import type { OperatorName } from './operators';

/**
 * What a test compares with: a text (also the id of a thing, a day, a time), a number, or several of one kind.
 * Which of them, the operator says.
 */
export type TestValue = string | number | readonly string[] | readonly number[];

/** The value of a test, or none for operators that take none. */
export type OptionalValue = TestValue | undefined;

/**
 * One comparison of one fact. The catalogue says which subjects, operators and values go together;
 * `checkTest` tells whether they do.
 */
export interface Test {
  readonly kind: 'test';
  readonly fact: FactName;
  /** What the fact is of, for facts that need saying: the id of a field, product, course or activity, a parameter's name. */
  readonly subject?: string;
  readonly op: OperatorName;
  readonly value?: TestValue;
}

/** A condition that has a name and is kept in one place. */
export interface AudienceUse {
  readonly kind: 'audience';
  readonly audience: AudienceId;
}

/** Tests joined by and, or, not. `all` of nothing is everyone; `any` of nothing is nobody. */
export type Condition =
  | { readonly kind: 'all'; readonly of: readonly Condition[] }
  | { readonly kind: 'any'; readonly of: readonly Condition[] }
  | { readonly kind: 'not'; readonly of: Condition }
  | AudienceUse
  | Test;

export const all = (...of: readonly Condition[]): Condition => ({ kind: 'all', of });
export const any = (...of: readonly Condition[]): Condition => ({ kind: 'any', of });
export const not = (of: Condition): Condition => ({ kind: 'not', of });
export const inAudience = (audience: AudienceId): Condition => ({ kind: 'audience', audience });

/** A test of a fact that needs no subject. */
export const test = (fact: FactName, op: OperatorName, value?: TestValue): Test => ({
  kind: 'test',
  fact,
  op,
  ...(value !== undefined && { value }),
});

/** A test of a fact of something: of a profile field, a product, a course, an activity, an address parameter. */
export const testOf = (fact: FactName, subject: string, op: OperatorName, value?: TestValue): Test => ({
  kind: 'test',
  fact,
  subject,
  op,
  ...(value !== undefined && { value }),
});

export const everyone: Condition = all();
export const nobody: Condition = any();
export const signedIn: Test = test('signed in', 'is');
export const guests: Condition = not(signedIn);
export const hasRole = (role: RoleId): Test => test('role', 'includes', role);
export const inGroup = (group: GroupId): Test => test('group', 'includes', group);
export const level = (op: 'at least' | 'exactly' | 'at most', value: LevelId): Test =>
  test('level', op, value);
export const hasLevel: Test = test('level', 'is set');
export const hasNoLevel: Test = test('level', 'is not set');
export const owns = (product: ProductId): Test => testOf('owns', product, 'is');
export const knows = (passphrase: PassphraseId): Test => test('passphrase', 'includes', passphrase);
export const profile = (field: FieldId, op: OperatorName, value?: TestValue): Test =>
  testOf('profile', field, op, value);

/** Every test that is written in a condition, in reading order, repeats included. Audiences are not looked into. */
export const testsIn = (condition: Condition): readonly Test[] =>
  fold<readonly Test[]>(condition, {
    group: (parts) => parts.flat(),
    not: (part) => part,
    audience: () => [],
    test: (one) => [one],
  });

/** Every audience that a condition names, repeats included. */
export const audiencesIn = (condition: Condition): readonly AudienceId[] =>
  fold<readonly AudienceId[]>(condition, {
    group: (parts) => parts.flat(),
    not: (part) => part,
    audience: ({ audience }) => [audience],
    test: () => [],
  });

/** A text that is equal for equal conditions, for sharing and comparing. */
export const keyOf = (condition: Condition): string =>
  fold<string>(condition, {
    group: (parts, { kind }) => `${kind}(${parts.join(',')})`,
    not: (part) => `not(${part})`,
    audience: ({ audience }) => `audience${JSON.stringify(audience)}`,
    test: ({ fact, subject, op, value }) => JSON.stringify([fact, subject ?? null, op, value ?? null]),
  });
