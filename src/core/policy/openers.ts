/**
 * What would open it: the smallest changes of a visitor's facts after which an item opens. Found by trying every set
 * of up to {@link LARGEST} changes drawn from the tests of the gates that have a say, smallest first, so what is listed
 * is exactly what `decide` would answer.
 */
import {
  type Condition,
  evaluatorOf,
  expanded,
  FALSE,
  keyOf,
  problemOf,
  type Test,
  TRUE,
  testsIn,
} from '../condition';
import type { ItemId, LevelId } from '../ids';
import { guest, member, type RequestFacts, type VisitorFacts, type Vocabulary } from '../site';
import { assume, canBeAssumed } from './assume';
import type { CompiledPolicy } from './compile';
import { decide } from './decide';
import { explain } from './explain';

/** A change of one fact. Every change but signing out and learning a passphrase also means being signed in. */
export type Change =
  | { readonly kind: 'sign in' }
  | { readonly kind: 'sign out' }
  /** A test is to come out true, or false. */
  | { readonly kind: 'make'; readonly test: Test; readonly holds: boolean }
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
  request: RequestFacts,
): readonly (readonly Change[])[] {
  const { vocabulary } = compiled;
  const opens = (facts: VisitorFacts) => decide(compiled, item, facts, request).kind === 'open';
  if (opens(visitor)) return [];
  const conditions = explain(compiled, item, visitor, request).steps.flatMap((step) =>
    step.kind === 'gate' && step.verdict !== 'set aside'
      ? [expanded(step.gate.who, vocabulary.audiences)]
      : [],
  );
  const candidates = candidatesFor(conditions, visitor, request, vocabulary);
  const found: (readonly Change[])[] = [];
  for (let size = 1; size <= LARGEST; size++) {
    for (const set of subsets(candidates, size)) {
      if (!compatible(set) || found.some((smaller) => makesNeedless(smaller, set))) continue;
      if (opens(set.reduce((facts, change) => apply(facts, change, request, vocabulary), visitor)))
        found.push(set);
    }
  }
  return found;
}

function candidatesFor(
  conditions: readonly Condition[],
  visitor: VisitorFacts,
  request: RequestFacts,
  vocabulary: Vocabulary,
): Change[] {
  const tests = conditions.flatMap(testsIn);
  const found = new Map<string, Change>();
  for (const test of tests) {
    // What names something that is gone can't be fulfilled by anybody.
    if (!canBeAssumed(test) || problemOf(test, vocabulary) !== null) continue;
    const truth = evaluatorOf(test, vocabulary)(visitor, null, request);
    // What is not known could be wanted either way.
    if (truth !== TRUE) found.set(`yes ${keyOf(test)}`, { kind: 'make', test, holds: true });
    if (truth === TRUE || (truth !== FALSE && test.fact !== 'role' && test.fact !== 'group'))
      found.set(`no ${keyOf(test)}`, { kind: 'make', test, holds: false });
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

function apply(
  visitor: VisitorFacts,
  change: Change,
  request: RequestFacts,
  vocabulary: Vocabulary,
): VisitorFacts {
  switch (change.kind) {
    case 'sign out':
      return guest;
    case 'sign in':
      return visitor.signedIn ? visitor : member();
    case 'level':
      return { ...(visitor.signedIn ? visitor : member()), level: change.level };
    case 'make':
      return assume(visitor, change.test, change.holds, request.today, vocabulary);
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
