/**
 * What would open it: the smallest sets of changes of a visitor's facts after which an item opens. Sets are built up by one
 * change at a time, shortest first: whatever else a set holds, it has to mend the first gate that does not let the
 * visitor by, so only changes that mend a part of that gate's condition are added. Nothing that opens is missed for being
 * deep in a condition, and every set listed is one that `decide` answers with open.
 */
import {
  type Condition,
  type Evaluator,
  evaluatorOf,
  expanded,
  FALSE,
  factNamed,
  foldPushed,
  keyOf,
  problemOf,
  type Test,
  TRUE,
  type Trace,
  type Truth,
  testsIn,
  trace,
  withOneBefore,
} from '../condition';
import type { ItemId, LevelId } from '../ids';
import { guest, type Item, member, type RequestFacts, type VisitorFacts, type Vocabulary } from '../site';
import { assume, canBeAssumed, hasOneValue } from './assume';
import { type CompiledPolicy, hurdlesOf } from './compile';
import { decide } from './decide';

/** A change of one fact. Every change but signing out and learning a passphrase also means being signed in. */
export type Change =
  | { readonly kind: 'sign in' }
  | { readonly kind: 'sign out' }
  /** A test is to come out true, or false. */
  | { readonly kind: 'make'; readonly test: Test; readonly holds: boolean }
  | { readonly kind: 'level'; readonly level: LevelId | null };

/** Sets of more changes than this are no advice to anybody. */
const LARGEST = 6;
const MOST_TRIED = 4000;
/** How many single changes are tried out, on sets of whatever size, before it is left at what was found. */
const MOST_CHANGES = 150_000;
/** Nobody reads more than this. */
const MOST_WAYS = 200;

/** What would open an item: sets of changes, shortest first. */
export interface Openers {
  readonly ways: readonly (readonly Change[])[];
  /** Whether there may be more: there was too much to try, or a set would be larger than is any use. */
  readonly cut: boolean;
}

/** A change with what it is of: a set holds one change of each thing. */
export interface Candidate {
  readonly change: Change;
  readonly of: string;
}

/**
 * The smallest sets of changes that open an item for a visitor, shortest first; none when it is open already, or when
 * nothing that can be changed opens it. Of sets that differ in the level alone, the lowest level is kept.
 */
export function openers(
  compiled: CompiledPolicy,
  item: ItemId,
  visitor: VisitorFacts,
  request: RequestFacts,
): Openers {
  const { vocabulary } = compiled;
  const opens = (facts: VisitorFacts) => decide(compiled, item, facts, request).kind === 'open';
  if (opens(visitor)) return { ways: [], cut: false };
  const gates = gatesAt(compiled, item);
  const candidates = candidatesIn(gates, visitor, vocabulary);
  const place = new Map(candidates.map((candidate, index) => [candidate, index]));
  const after = (set: readonly Candidate[]): VisitorFacts =>
    set.reduce((facts, { change }) => apply(facts, change, request, vocabulary), visitor);
  const mender = menderOf(gates, candidates, request, vocabulary);
  const found: (readonly Candidate[])[] = [];
  const tried = new Set<string>();
  let cut = false;
  let layer: readonly (readonly Candidate[])[] = [[]];
  for (let size = 1; size <= LARGEST && layer.length > 0; size++) {
    const next: (readonly Candidate[])[] = [];
    for (const set of layer) {
      if (tried.size >= MOST_TRIED || found.length > MOST_WAYS || mender.changes() >= MOST_CHANGES) {
        cut = true;
        break;
      }
      for (const candidate of mender.mending(after(set))) {
        if (set.some(({ of }) => of === candidate.of) || !goTogether([...set, candidate])) continue;
        const larger = [...set, candidate].sort((a, b) => (place.get(a) ?? 0) - (place.get(b) ?? 0));
        const key = larger.map((one) => place.get(one)).join();
        if (tried.has(key)) continue;
        tried.add(key);
        if (!found.some((smaller) => makesNeedless(smaller, larger))) next.push(larger);
      }
    }
    // The lowest level comes first among the candidates, and so do the sets with it.
    next.sort((a, b) => inOrder(a, b, place));
    const open = new Set(next.filter((set) => opens(after(set))));
    for (const set of open) {
      const needed = without(set, (rest) => opens(after(rest)));
      if (!found.some((smaller) => makesNeedless(smaller, needed))) found.push(needed);
    }
    layer = next.filter((set) => !open.has(set));
  }
  // What was found with a change that turned out needless may be shorter than what was found before it.
  found.sort((a, b) => a.length - b.length || inOrder(a, b, place));
  const told = found
    .slice(0, MOST_WAYS)
    .map((set) => spelt(set, gates, visitor, after(set), request, vocabulary));
  const keys = told.map((set) => new Set(set.map(keyOfChange)));
  const isIn = (smaller: ReadonlySet<string>, larger: ReadonlySet<string>) =>
    smaller.size <= larger.size && [...smaller].every((key) => larger.has(key));
  return {
    cut: cut || layer.length > 0 || found.length > MOST_WAYS,
    ways: told.filter(
      (_, at) =>
        !keys.some((other, index) => {
          const own = keys[at] ?? other;
          return index !== at && isIn(other, own) && (other.size < own.size || index < at);
        }),
    ),
  };
}

/** A text that is equal for equal changes. */
const keyOfChange = (change: Change): string =>
  change.kind === 'make'
    ? `${change.holds} ${keyOf(change.test)}`
    : change.kind === 'level'
      ? `level ${change.level}`
      : change.kind;

/** A set without the changes that it opens without: what one buys, one has signed in for. */
const without = (
  set: readonly Candidate[],
  opens: (rest: readonly Candidate[]) => boolean,
): readonly Candidate[] =>
  set.reduce((kept, one) => {
    const rest = kept.filter((other) => other !== one);
    return rest.length > 0 && opens(rest) ? rest : kept;
  }, set);

/**
 * A set in words that leave nothing out: where one value has to meet several tests of a fact, each of them is named, the one
 * that decides the value last.
 */
function spelt(
  set: readonly Candidate[],
  gates: readonly Guard[],
  visitor: VisitorFacts,
  then: VisitorFacts,
  request: RequestFacts,
  vocabulary: Vocabulary,
): readonly Change[] {
  const asked = gates.flatMap(({ who, at }) => wishes(who).map((wish) => ({ ...wish, at })));
  return set.flatMap(({ change }): readonly Change[] => {
    if (change.kind !== 'make' || !hasOneValue(factNamed(change.test.fact))) return [change];
    const others = asked.flatMap(({ test, holds, at }): readonly Change[] => {
      if (test.fact !== change.test.fact || test.subject !== change.test.subject) return [];
      const [was, is] = [visitor, then].map((facts) => evaluatorOf(test, vocabulary)(facts, at, request));
      const wanted = holds ? TRUE : FALSE;
      return is === wanted && was !== wanted ? [{ kind: 'make', test, holds }] : [];
    });
    const apart = new Map(others.map((one) => [keyOfChange(one), one]));
    apart.delete(keyOfChange(change));
    return [...apart.values(), change];
  });
}

/** Every test of a condition with the answer that would be to its good. */
const wishes = (condition: Condition): readonly Wanted[] =>
  foldPushed<readonly Wanted[]>(condition, {
    all: (parts) => parts.flat(),
    any: (parts) => parts.flat(),
    audience: () => [],
    test: (test, holds) => [{ test, holds }],
  });

function inOrder(
  a: readonly Candidate[],
  b: readonly Candidate[],
  place: ReadonlyMap<Candidate, number>,
): number {
  for (const [index, one] of a.entries()) {
    const other = b[index];
    const distance = (place.get(one) ?? 0) - ((other && place.get(other)) ?? 0);
    if (distance !== 0) return distance;
  }
  return 0;
}

/** Of a guest nothing is known but the passphrases they typed, so whoever signs out can do only that beside it. */
const goTogether = (set: readonly Candidate[]): boolean =>
  !set.some(({ change }) => change.kind === 'sign out') ||
  set.every(
    ({ change }) =>
      change.kind === 'sign out' ||
      (change.kind === 'make' && change.test.fact === 'passphrase' && change.holds),
  );

const makesNeedless = (smaller: readonly Candidate[], set: readonly Candidate[]): boolean =>
  smaller.every(
    (one) =>
      set.includes(one) ||
      (one.change.kind === 'level' && set.some(({ of }) => of === one.of)) ||
      // Whatever a guest is to become, they have signed in for it.
      (one.change.kind === 'sign in' && set.some(({ change }) => meansSignedIn(change))),
  );

const meansSignedIn = (change: Change): boolean =>
  change.kind === 'make' ? change.test.fact !== 'passphrase' : change.kind !== 'sign out';

/** A gate that can turn visitors away from the item, where it stands, with all that it asks spelt out. */
interface Guard {
  readonly who: Condition;
  readonly at: Item;
}

const gatesAt = (compiled: CompiledPolicy, item: ItemId): readonly Guard[] =>
  (hurdlesOf(compiled, item) ?? []).map(({ gate, at }) => ({
    // What is not published opens to nobody: any of nothing.
    who: gate
      ? withOneBefore(expanded(gate.who, compiled.vocabulary.audiences), at)
      : { kind: 'any', of: [] },
    at,
  }));

/** Every change that has to do with the gates over an item. */
export const candidateChanges = (
  compiled: CompiledPolicy,
  item: ItemId,
  visitor: VisitorFacts,
): readonly Candidate[] => candidatesIn(gatesAt(compiled, item), visitor, compiled.vocabulary);

function candidatesIn(
  gates: readonly Guard[],
  visitor: VisitorFacts,
  vocabulary: Vocabulary,
): readonly Candidate[] {
  const tests = new Map(gates.flatMap(({ who }) => testsIn(who)).map((test) => [keyOf(test), test]));
  const asked = [...tests.values()].filter((test) => problemOf(test, vocabulary) === null);
  const levels = asked.some(({ fact }) => fact === 'level')
    ? [null, ...vocabulary.levels.map(({ id }) => id)]
    : [];
  return [
    { change: { kind: visitor.signedIn ? 'sign out' : 'sign in' }, of: 'session' },
    ...levels.map((level): Candidate => ({ change: { kind: 'level', level }, of: 'level' })),
    ...asked.filter(canBeAssumed).flatMap((test): readonly Candidate[] => [
      { change: { kind: 'make', test, holds: true }, of: thingOf(test) },
      { change: { kind: 'make', test, holds: false }, of: thingOf(test) },
    ]),
  ];
}

/** What a test's fact is of: tests of the same thing are met by one value. */
function thingOf({ fact, subject, value }: Test): string {
  switch (fact) {
    case 'role':
    case 'group':
    case 'passphrase':
      return `${fact} ${value}`;
    case 'enrolled':
    case 'enrolment':
      return `course ${subject}`;
    case 'completed':
    case 'score':
      return `activity ${subject}`;
    default:
      return `${factNamed(fact).subject === 'product' ? 'product' : fact} ${subject ?? ''}`;
  }
}

/** Finds the changes that mend a part of the first condition that does not let a visitor by, and counts what it tries. */
function menderOf(
  gates: readonly Guard[],
  candidates: readonly Candidate[],
  request: RequestFacts,
  vocabulary: Vocabulary,
) {
  const evaluators = new Map<Test, Evaluator>();
  const evaluate = (test: Test, facts: VisitorFacts, at: Item): Truth => {
    const evaluator = evaluators.get(test) ?? evaluatorOf(test, vocabulary);
    evaluators.set(test, evaluator);
    return evaluator(facts, at, request);
  };
  let changes = 0;
  return {
    changes: () => changes,
    mending(visitor: VisitorFacts): readonly Candidate[] {
      for (const { who, at } of gates) {
        const traced = trace(who, { visitor, item: at, request }, vocabulary);
        if (traced.truth === TRUE) continue;
        const wanted = wants(traced, true);
        const things = new Set(wanted.map(({ test }) => thingOf(test)));
        // Whatever makes a member of a guest makes known what a member has none of; signing in stands for all of it here.
        const able = candidates.filter(({ change, of }) => things.has(of) || change.kind !== 'make');
        changes += able.length;
        return able.filter(({ change }) => {
          const changed = apply(visitor, change, request, vocabulary);
          return wanted.some(({ test, holds }) => evaluate(test, changed, at) === (holds ? TRUE : FALSE));
        });
      }
      return [];
    },
  };
}

interface Wanted {
  readonly test: Test;
  readonly holds: boolean;
}

/** The tests of which one has to come out otherwise for a condition to come out as wanted. */
function wants({ condition, truth, parts }: Trace, holds: boolean): readonly Wanted[] {
  const done = holds ? TRUE : FALSE;
  if (truth === done) return [];
  switch (condition.kind) {
    case 'test':
      return [{ test: condition, holds }];
    case 'not':
      return parts.flatMap((part) => wants(part, !holds));
    case 'audience':
      return [];
    case 'all':
    case 'any': {
      const open = parts.filter((part) => part.truth !== done);
      // Where every part has to come out so, the first is as good to begin with as any.
      const needed = (condition.kind === 'all') === holds ? open.slice(0, 1) : open;
      return needed.flatMap((part) => wants(part, holds));
    }
    default:
      return condition satisfies never;
  }
}

/** A visitor after some changes. */
export const withChanges = (
  visitor: VisitorFacts,
  changes: readonly Change[],
  request: RequestFacts,
  vocabulary: Vocabulary,
): VisitorFacts => changes.reduce((facts, change) => apply(facts, change, request, vocabulary), visitor);

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
      return visitor.signedIn ? visitor : member({ passphrases: visitor.passphrases });
    case 'level':
      return {
        ...(visitor.signedIn ? visitor : member({ passphrases: visitor.passphrases })),
        level: change.level,
      };
    case 'make':
      return assume(visitor, change.test, change.holds, request.today, vocabulary);
    default:
      return change satisfies never;
  }
}
