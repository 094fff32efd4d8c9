/**
 * What would open it: the smallest changes of a visitor's facts after which an item opens. Found by trying every set
 * of up to {@link LARGEST} changes drawn from the tests of the gates that have a say, smallest first, so what is listed
 * is exactly what `decide` would answer.
 */
import { type Condition, type GroupTest, type RoleTest, testsIn } from '../condition';
import type { ItemId, LevelId } from '../ids';
import { guest, member, type VisitorFacts, type Vocabulary } from '../site';
import type { CompiledPolicy } from './compile';
import { decide } from './decide';
import { explain } from './explain';

/** A change of one fact. Every change but the first two also means being signed in. */
export type Change =
  | { readonly kind: 'sign in' }
  | { readonly kind: 'sign out' }
  | { readonly kind: 'gain' | 'lose'; readonly test: RoleTest | GroupTest }
  | { readonly kind: 'level'; readonly level: LevelId | null };

const LARGEST = 3;
const MOST_CANDIDATES = 24;

/**
 * The smallest sets of changes that open an item for a visitor, shortest first; none when it is open already, or when
 * nothing within reach opens it. Of sets that differ in the level alone, the lowest level is kept.
 */
export function openers(
  compiled: CompiledPolicy,
  item: ItemId,
  visitor: VisitorFacts,
): readonly (readonly Change[])[] {
  if (decide(compiled, item, visitor).kind === 'open') return [];
  const conditions = explain(compiled, item, visitor).steps.flatMap((step) =>
    step.kind === 'gate' && step.verdict !== 'set aside' ? [step.gate.who] : [],
  );
  const candidates = candidatesFor(conditions, visitor, compiled.vocabulary);
  const found: (readonly Change[])[] = [];
  for (let size = 1; size <= LARGEST; size++) {
    for (const set of subsets(candidates, size)) {
      if (!compatible(set) || found.some((smaller) => makesNeedless(smaller, set))) continue;
      const changed = set.reduce(apply, visitor);
      if (decide(compiled, item, changed).kind === 'open') found.push(set);
    }
  }
  return found;
}

function candidatesFor(
  conditions: readonly Condition[],
  visitor: VisitorFacts,
  vocabulary: Vocabulary,
): Change[] {
  const tests = conditions.flatMap(testsIn);
  const found = new Map<string, Change>();
  for (const test of tests) {
    if (test.fact !== 'role' && test.fact !== 'group') continue;
    const held: readonly string[] = (test.fact === 'role' ? visitor.roles : visitor.groups) ?? [];
    found.set(`${test.fact} ${test.value}`, { kind: held.includes(test.value) ? 'lose' : 'gain', test });
  }
  const rungs = tests.some((test) => test.fact === 'level')
    ? [null, ...vocabulary.levels.map(({ id }) => id)]
    : [];
  return [
    { kind: visitor.signedIn ? 'sign out' : 'sign in' } as const,
    ...rungs.filter((rung) => rung !== visitor.level).map((rung): Change => ({ kind: 'level', level: rung })),
    ...found.values(),
  ].slice(0, MOST_CANDIDATES);
}

const compatible = (set: readonly Change[]): boolean =>
  set.filter((change) => change.kind === 'level').length < 2 &&
  (set.length === 1 || !set.some((change) => change.kind === 'sign out'));

const makesNeedless = (smaller: readonly Change[], set: readonly Change[]): boolean =>
  smaller.every(
    (change) => set.includes(change) || (change.kind === 'level' && set.some(({ kind }) => kind === 'level')),
  );

function apply(visitor: VisitorFacts, change: Change): VisitorFacts {
  if (change.kind === 'sign out') return guest;
  const facts = visitor.signedIn ? visitor : member();
  switch (change.kind) {
    case 'sign in':
      return facts;
    case 'level':
      return { ...facts, level: change.level };
    case 'gain':
    case 'lose': {
      const update = <T extends string>(held: readonly T[] | null, value: T): readonly T[] =>
        change.kind === 'gain' ? [...(held ?? []), value] : (held ?? []).filter((id) => id !== value);
      return change.test.fact === 'role'
        ? { ...facts, roles: update(facts.roles, change.test.value) }
        : { ...facts, groups: update(facts.groups, change.test.value) };
    }
    default:
      return change satisfies never;
  }
}

function* subsets<T>(list: readonly T[], size: number, from = 0): Generator<readonly T[]> {
  if (size === 0) {
    yield [];
    return;
  }
  for (let at = from; at <= list.length - size; at++) {
    for (const rest of subsets(list, size - 1, at + 1)) yield [list[at] as T, ...rest];
  }
}
