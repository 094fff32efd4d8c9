/**
 * Conditions over everybody at once. For each test two bitsets are kept, those of whom it is true and those of whom it is
 * false (of the others it is unknown), so that a condition with its *not*s pushed to the tests is *and* and *or* on
 * words. Made once for a membership and a moment; bitsets are made when a test is first asked.
 */

import { type Bitset, emptyBitset, fullBitset, popcount } from '../bitset';
import { type Condition, factNamed, foldPushed, keyOf, type Test, testsIn } from '../condition';
import { expanded } from '../condition/audience';
import { evaluatorOf } from '../condition/evaluate';
import { FALSE, TRUE, type Truth } from '../condition/truth';
import { drained } from '../drained';
import { guest, type Item, type RequestFacts, type VisitorFacts, type Vocabulary } from '../site';

/** A set of people with its size. */
export interface Subset {
  readonly bits: Bitset;
  readonly count: number;
}

export interface Columns {
  /** How many people there are. */
  readonly size: number;
  /**
   * The people of whom a condition is true, at an item or at none. What a request brings is the same for everybody, so it
   * is asked of the request at hand: columns stay good for a whole day.
   */
  readonly select: (condition: Condition, item?: Item | null, at?: RequestFacts) => Subset;
  /** Makes in steps what conditions ask for at no item in particular, so that {@link select} has it. */
  readonly ready: (conditions: Iterable<Condition>) => Generator<void>;
  /** The same of people of whom those at some places are others. What was made is made anew of these. */
  readonly changed: (people: readonly VisitorFacts[], places: Iterable<number>) => Columns;
  /** How many bytes the bitsets of the tests asked so far take. */
  readonly bytes: () => number;
}

/** What is left of a condition: bitsets joined by and, or. */
type Plan = Bitset | { readonly connective: 'and' | 'or'; readonly of: readonly Plan[] };

interface Column {
  readonly yes: Bitset;
  readonly no: Bitset;
  readonly truthOf: (facts: VisitorFacts) => Truth;
}

// As many words as stay close to the processor while a whole condition runs over them.
const BLOCK = 2048;
/** Of so many words a column is made in one step. */
const STEP = 256;

/** Makes the columns of a membership. The list must not change afterwards. */
export const columnsOf = (
  people: readonly VisitorFacts[],
  vocabulary: Vocabulary,
  request: RequestFacts,
): Columns => columnsWith(people, vocabulary, request, new Map());

function columnsWith(
  people: readonly VisitorFacts[],
  vocabulary: Vocabulary,
  request: RequestFacts,
  columns: Map<string, Column>,
): Columns {
  const size = people.length;
  const full = fullBitset(size);
  const none = emptyBitset(size);

  const columnOf = (test: Test, item: Item | null, at: RequestFacts): Pick<Column, 'yes' | 'no'> => {
    const { of, dependsOn } = factNamed(test.fact);
    if (of === 'request' || of === 'item') {
      const truth = evaluatorOf(test, vocabulary)(guest, item, at);
      return { yes: truth === TRUE ? full : none, no: truth === FALSE ? full : none };
    }
    return drained(make(dependsOn ? `${item && dependsOn(item)} ${keyOf(test)}` : keyOf(test), test, item));
  };

  function* make(key: string, test: Test, item: Item | null): Generator<void, Column> {
    const known = columns.get(key);
    if (known) return known;
    const evaluate = evaluatorOf(test, vocabulary);
    const made: Column = {
      yes: emptyBitset(size),
      no: emptyBitset(size),
      truthOf: (facts) => evaluate(facts, item, request),
    };
    for (let from = 0; from < made.yes.length; from += STEP) {
      fill(made, people, from, Math.min(from + STEP, made.yes.length));
      yield;
    }
    columns.set(key, made);
    return made;
  }

  const joined = (join: 'and' | 'or', parts: readonly Plan[]): Plan => {
    const of = parts.flatMap((plan) => ('connective' in plan && plan.connective === join ? plan.of : [plan]));
    if (of.length === 1 && of[0]) return of[0];
    return of.length === 0 ? (join === 'and' ? full : none) : { connective: join, of };
  };

  const planFor = (condition: Condition, item: Item | null, at: RequestFacts): Plan =>
    foldPushed<Plan>(condition, {
      all: (parts) => joined('and', parts),
      any: (parts) => joined('or', parts),
      // Only one that is gone, or comes back to itself, is left here: unknown of everybody.
      audience: () => none,
      test: (test, holds) => columnOf(test, item, at)[holds ? 'yes' : 'no'],
    });

  return {
    size,
    select: (condition, item = null, at = request) => {
      const plan = planFor(expanded(condition, vocabulary.audiences), item, at);
      const bits = emptyBitset(size);
      return { bits, count: run(plan, bits) };
    },
    *ready(conditions) {
      for (const condition of conditions)
        for (const test of testsIn(expanded(condition, vocabulary.audiences))) {
          const { of, dependsOn } = factNamed(test.fact);
          if (of === 'visitor' && !dependsOn) yield* make(keyOf(test), test, null);
        }
    },
    changed: (others, places) => {
      const words = new Set(Array.from(places, (place) => place >>> 5));
      const copies = [...columns].map(([key, { yes, no, truthOf }]): [string, Column] => {
        const copy = { yes: yes.slice(), no: no.slice(), truthOf };
        for (const word of words) fill(copy, others, word, word + 1);
        return [key, copy];
      });
      return columnsWith(others, vocabulary, request, new Map(copies));
    },
    bytes: () => [...columns.values()].reduce((sum, { yes, no }) => sum + yes.byteLength + no.byteLength, 0),
  };
}

/** Makes some words of a column. */
function fill({ yes, no, truthOf }: Column, people: readonly VisitorFacts[], from: number, to: number): void {
  for (let at = from; at < to; at++) {
    const start = at * 32;
    const end = Math.min(start + 32, people.length);
    let trues = 0;
    let falses = 0;
    for (let person = start; person < end; person++) {
      const truth = truthOf(people[person] as VisitorFacts);
      if (truth === TRUE) trues |= 1 << (person - start);
      else if (truth === FALSE) falses |= 1 << (person - start);
    }
    yes[at] = trues;
    no[at] = falses;
  }
}

/** Runs a plan into a bitset, block by block, and counts as it goes. */
function run(plan: Plan, out: Bitset): number {
  const spare: Uint32Array[] = [];
  let count = 0;
  for (let from = 0; from < out.length; from += BLOCK) {
    const to = Math.min(from + BLOCK, out.length);
    const target = out.subarray(from, to);
    runBlock(plan, from, target, spare, 0);
    for (let at = 0; at < target.length; at++) count += popcount(target[at] as number);
  }
  return count;
}

function runBlock(plan: Plan, from: number, target: Uint32Array, spare: Uint32Array[], depth: number): void {
  const { length } = target;
  if (!('connective' in plan)) {
    for (let at = 0; at < length; at++) target[at] = plan[from + at] as number;
    return;
  }
  const [first, ...rest] = plan.of;
  if (first) runBlock(first, from, target, spare, depth);
  for (const part of rest) {
    if (!('connective' in part)) {
      merge(target, part, from, plan.connective, length);
      continue;
    }
    spare[depth] ??= new Uint32Array(BLOCK);
    const scratch = (spare[depth] as Uint32Array).subarray(0, length);
    runBlock(part, from, scratch, spare, depth + 1);
    merge(target, scratch, 0, plan.connective, length);
  }
}

function merge(
  target: Uint32Array,
  source: Uint32Array,
  from: number,
  join: 'and' | 'or',
  length: number,
): void {
  if (join === 'and')
    for (let at = 0; at < length; at++) target[at] = (target[at] as number) & (source[from + at] as number);
  else
    for (let at = 0; at < length; at++) target[at] = (target[at] as number) | (source[from + at] as number);
}
