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
import type { ItemId } from '../ids';
import { guest, type Item, type Outline, type RequestFacts, requestAt, type Vocabulary } from '../site';

/** Answers whether a selection takes something. */
export type Selector<T> = (one: T) => boolean;

/** The two readings of a selection where a fact of an item is missing. */
export interface Selectors<T> {
  /** Takes an item only if that is certain: what is missing could be anything. */
  readonly certain: Selector<T>;
  /** Takes an item if that holds of one that has nothing where nothing is known of it. */
  readonly closed: Selector<T>;
}

type Met = ReturnType<Reader>;
/** What is known of something for a test. */
type MetOf<T> = (test: Test) => (one: T) => Met;

// No test of a selection reads them.
const nobody = guest;
const never: RequestFacts = requestAt({ today: '2000-01-01', minute: 0, weekday: 'Saturday' });

const readerOf = (test: Test, vocabulary: Vocabulary): ((item: Item) => Met) => {
  const read = factNamed(test.fact).read(test.subject ?? '', vocabulary);
  return (item) => read(nobody, item, never);
};

/** Both readings, of items. Whatever the certain one takes the closed one takes as well. */
export const selectorsOf = (where: Condition, vocabulary: Vocabulary): Selectors<Item> =>
  both(where, vocabulary, (test) => readerOf(test, vocabulary));

const both = <T>(where: Condition, vocabulary: Vocabulary, metOf: MetOf<T>): Selectors<T> => ({
  certain: certainly(where, vocabulary, metOf),
  closed: inClosedWorld(where, vocabulary, metOf),
});

// What is known of a site's items, fact by fact: hundreds of gates ask for the same few.
const known = new WeakMap<
  Outline,
  { readonly items: readonly Item[]; readonly columns: Map<string, readonly Met[]> }
>();

/** The items of a site that a selection takes; those in doubt as well, or not. */
export function selectedIn(
  where: Condition,
  outline: Outline,
  vocabulary: Vocabulary,
  doubt: boolean,
): readonly ItemId[] {
  const table = known.get(outline) ?? { items: [...outline.items.values()], columns: new Map() };
  known.set(outline, table);
  const column = (test: Test): readonly Met[] => {
    const found = table.columns.get(test.fact) ?? table.items.map(readerOf(test, vocabulary));
    table.columns.set(test.fact, found);
    return found;
  };
  const selectors = both<number>(where, vocabulary, (test) => {
    const values = column(test);
    return (at) => values[at] ?? null;
  });
  const takes = doubt ? selectors.closed : selectors.certain;
  const taken: ItemId[] = [];
  for (const [at, item] of table.items.entries()) if (takes(at)) taken.push(item.id);
  return taken;
}

/**
 * What a test comes to. Many items share a kind, a category, an author: each value is judged once. A name that is gone is
 * compared like any other: the items that had it keep its id, so taking a name away takes no item from under its gates.
 */
function judged<T>(test: Test, vocabulary: Vocabulary, metOf: MetOf<T>): (one: T) => Truth {
  const judge = comparingJudge(test, vocabulary);
  const read = metOf(test);
  const before = new Map<string | null, Truth>();
  // Every address is another, so keeping them would only take room.
  const shared = test.fact !== 'item address';
  return (one) => {
    const met = read(one);
    if (met !== null && (!shared || typeof met !== 'string')) return judge(met, never);
    const found = before.get(met);
    if (found !== undefined) return found;
    const truth = judge(met, never);
    before.set(met, truth);
    return truth;
  };
}

const every =
  <T>(parts: readonly Selector<T>[]): Selector<T> =>
  (one) =>
    parts.every((part) => part(one));
const some =
  <T>(parts: readonly Selector<T>[]): Selector<T> =>
  (one) =>
    parts.some((part) => part(one));
const none = () => false;

const certainly = <T>(where: Condition, vocabulary: Vocabulary, metOf: MetOf<T>): Selector<T> =>
  foldPushed<Selector<T>>(where, {
    all: every,
    any: some,
    audience: () => none,
    test: (test, holds) => {
      const truthOf = judged(test, vocabulary, metOf);
      const truth = holds ? TRUE : FALSE;
      return (one) => truthOf(one) === truth;
    },
  });

const inClosedWorld = <T>(where: Condition, vocabulary: Vocabulary, metOf: MetOf<T>): Selector<T> =>
  fold<Selector<T>>(where, {
    group: (parts, { kind }) => (kind === 'all' ? every(parts) : some(parts)),
    not: (part) => (one) => !part(one),
    audience: () => none,
    test: (test) => {
      const truthOf = judged(test, vocabulary, metOf);
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
