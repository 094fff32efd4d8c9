/**
 * Selections: what a gate covers, described by the facts of items rather than pointed at. Coverage is worked out once for a
 * policy, so a selection asks nothing of visitors, of requests or of the day.
 */
import {
  type Condition,
  evaluatorOf,
  factNamed,
  type Test,
  TODAY,
  TRUE,
  type Truth,
  testsIn,
  UNKNOWN,
} from '../condition';
import { guest, type Item, type RequestFacts, requestAt, type Vocabulary } from '../site';

/** Answers whether a selection takes an item. */
export type Selector = (item: Item) => boolean;

/** The two readings of a selection where a fact of an item is missing. */
export interface Selectors {
  /** Takes an item only if that is certain: what is missing could be anything. */
  readonly certain: Selector;
  /** Takes an item if that holds of one that has nothing where nothing is known of it. */
  readonly closed: Selector;
}

// No test of a selection reads them.
const nobody = guest;
const never: RequestFacts = requestAt({ today: '2000-01-01', minute: 0, weekday: 'Saturday' });

/** Both readings. Whatever the certain one takes the closed one takes as well. */
export function selectorsOf(where: Condition, vocabulary: Vocabulary): Selectors {
  return { certain: certainly(where, true, vocabulary), closed: inClosedWorld(where, vocabulary) };
}

/** What a test comes to for an item. Many items share a kind, a category, an author: each value is asked about once. */
function byValue(test: Test, vocabulary: Vocabulary): (item: Item) => Truth {
  const evaluate = evaluatorOf(test, vocabulary);
  const read = factNamed(test.fact).read(test.subject ?? '', vocabulary);
  const known = new Map<string | null, Truth>();
  // Every address is another, so keeping them would only take room.
  if (test.fact === 'item address') return (item) => evaluate(nobody, item, never);
  return (item) => {
    const met = read(nobody, item, never);
    if (met !== null && typeof met !== 'string') return evaluate(nobody, item, never);
    const before = known.get(met);
    if (before !== undefined) return before;
    const truth = evaluate(nobody, item, never);
    known.set(met, truth);
    return truth;
  };
}

function certainly(where: Condition, wanted: boolean, vocabulary: Vocabulary): Selector {
  switch (where.kind) {
    case 'all':
    case 'any': {
      const parts = where.of.map((part) => certainly(part, wanted, vocabulary));
      return (where.kind === 'all') === wanted
        ? (item) => parts.every((part) => part(item))
        : (item) => parts.some((part) => part(item));
    }
    case 'not':
      return certainly(where.of, !wanted, vocabulary);
    case 'audience':
      return () => false;
    case 'test': {
      const truthOf = byValue(where, vocabulary);
      const truth = wanted ? TRUE : -TRUE;
      return (item) => truthOf(item) === truth;
    }
    default:
      return where satisfies never;
  }
}

function inClosedWorld(where: Condition, vocabulary: Vocabulary): Selector {
  switch (where.kind) {
    case 'all':
    case 'any': {
      const parts = where.of.map((part) => inClosedWorld(part, vocabulary));
      return where.kind === 'all'
        ? (item) => parts.every((part) => part(item))
        : (item) => parts.some((part) => part(item));
    }
    case 'not': {
      const part = inClosedWorld(where.of, vocabulary);
      return (item) => !part(item);
    }
    case 'audience':
      return () => false;
    case 'test': {
      const truthOf = byValue(where, vocabulary);
      // Of an item without a category it holds that its category is not "Night logs".
      const missing = where.op === 'is not';
      return (item) => {
        const truth = truthOf(item);
        return truth === UNKNOWN ? missing : truth === TRUE;
      };
    }
    default:
      return where satisfies never;
  }
}

/** Why a condition can't be a selection, in words, or null. */
export function selectionProblem(where: Condition): string | null {
  if (usesAudience(where))
    return 'A selection asks for facts of items, and an audience is of people. Take it out.';
  for (const test of testsIn(where)) {
    if (!isSelecting(test))
      return `“${factNamed(test.fact).phrase}” is no fact of an item. What a gate covers is described by facts that begin with “item”.`;
    if (/within|ago/.test(test.op) || [test.value].flat().includes(TODAY))
      return 'What a gate covers can’t change from day to day. Write a day like 2026-12-01.';
  }
  return null;
}

const usesAudience = (condition: Condition): boolean =>
  condition.kind === 'audience' ||
  (condition.kind === 'not' && usesAudience(condition.of)) ||
  ((condition.kind === 'all' || condition.kind === 'any') && condition.of.some(usesAudience));

/** The facts that a selection can ask for. */
export const isSelecting = (test: Pick<Test, 'fact'>): boolean =>
  test.fact.startsWith('item ') && factNamed(test.fact).of === 'item';
