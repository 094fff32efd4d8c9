/**
 * Selections: what a gate covers, described by the facts of items rather than pointed at. Coverage is worked out once for a
 * policy, so a selection asks nothing of visitors, of requests or of the day.
 */
import {
  audiencesIn,
  type Condition,
  comparingJudge,
  FALSE,
  factNamed,
  fold,
  foldPushed,
  type Reader,
  type Test,
  TODAY,
  TRUE,
  type Truth,
  testsIn,
  UNKNOWN,
} from '../condition';
import { guest, type Item, type RequestFacts, requestAt, type Vocabulary } from '../site';

/** Answers whether a selection takes something. */
export type Selector = (item: Item) => boolean;

/** The two readings of a selection where a fact of an item is missing. */
export interface Selectors {
  /** Takes an item only if that is certain: what is missing could be anything. */
  readonly certain: Selector;
  /** Takes an item if that holds of one that has nothing where nothing is known of it. */
  readonly closed: Selector;
}

type Met = ReturnType<Reader>;

// No test of a selection reads them.
const nobody = guest;
const never: RequestFacts = requestAt({ today: '2000-01-01', minute: 0, weekday: 'Saturday' });

/** Reads what a test asks for of an item. */
export const readerOf = (test: Test, vocabulary: Vocabulary): ((item: Item) => Met) => {
  const read = factNamed(test.fact).read(test.subject ?? '', vocabulary);
  return (item) => read(nobody, item, never);
};

/** Both readings. Whatever the certain one takes the closed one takes as well. */
export const selectorsOf = (where: Condition, vocabulary: Vocabulary): Selectors => ({
  certain: certainly(where, vocabulary),
  closed: inClosedWorld(where, vocabulary),
});

/** What a value comes to for a test. */
export function judgeOf(test: Test, vocabulary: Vocabulary): (met: Met) => Truth {
  const judge = comparingJudge(test, vocabulary);
  return (met) => judge(met, never);
}

/**
 * What a test comes to. A name that is gone is compared like any other: the items that had it keep its id, so taking a name
 * away takes no item from under its gates.
 */
function judged(test: Test, vocabulary: Vocabulary): (item: Item) => Truth {
  const [judge, read] = [judgeOf(test, vocabulary), readerOf(test, vocabulary)];
  return (item) => judge(read(item));
}

const every =
  (parts: readonly Selector[]): Selector =>
  (one) =>
    parts.every((part) => part(one));
const some =
  (parts: readonly Selector[]): Selector =>
  (one) =>
    parts.some((part) => part(one));
const none = () => false;

const certainly = (where: Condition, vocabulary: Vocabulary): Selector =>
  foldPushed<Selector>(where, {
    all: every,
    any: some,
    audience: () => none,
    test: (test, holds) => {
      const truthOf = judged(test, vocabulary);
      const truth = holds ? TRUE : FALSE;
      return (one) => truthOf(one) === truth;
    },
  });

const inClosedWorld = (where: Condition, vocabulary: Vocabulary): Selector =>
  fold<Selector>(where, {
    group: (parts, { kind }) => (kind === 'all' ? every(parts) : some(parts)),
    not: (part) => (one) => !part(one),
    audience: () => none,
    test: (test) => {
      const truthOf = judged(test, vocabulary);
      // Of an item without a category it holds that its category is not "Night logs".
      const missing = test.op === 'is not';
      return (one) => {
        const truth = truthOf(one);
        return truth === UNKNOWN ? missing : truth === TRUE;
      };
    },
  });

/** Why a condition can't be a selection, in words, or null. */
export function selectionProblem(where: Condition): string | null {
  if (audiencesIn(where).length > 0)
    return 'A selection asks for facts of items, and an audience is of people. Take it out.';
  for (const test of testsIn(where)) {
    if (!isSelecting(test))
      return `“${factNamed(test.fact).phrase}” is no fact of an item. What a gate covers is described by facts that begin with “item”.`;
    if (/within|ago/.test(test.op) || [test.value].flat().includes(TODAY))
      return 'What a gate covers can’t change from day to day. Write a day like 2026-12-01.';
  }
  return null;
}

/** The facts that a selection can ask for. */
export const isSelecting = (test: Pick<Test, 'fact'>): boolean => factNamed(test.fact).of === 'item';
