/**
 * What changes for a membership between two lists of hurdles, some thousand words at a time: all that is in hand stays close
 * to the processor, and each step is a plain loop over bits. Who was turned away by a gate that still says the same, and is
 * turned away by it, notices nothing; only for the rest is it looked up who gets what.
 */
import { type Bitset, countOf, emptyBitset, type Subset } from '../columns';
import type { GateId } from '../ids';
import type { HurdleTerms } from './breakdown';
import { numbering, unpublishedKey } from './gate-terms';

/** The people for whom a condition of what is told holds. */
export type Select = (told: HurdleTerms, part: 'who' | number) => Bitset;

/** How many people there are, with nobody and everybody of them: kept, because they are asked for again and again. */
export interface Membership {
  readonly size: number;
  readonly none: Bitset;
  readonly full: Bitset;
}

/** Takes note of people whom a gate turned away: of those who gain, before; of those who lose, now. */
export interface GateTally {
  readonly of: (gate: GateId) => { readonly gains: Bitset; readonly loses: Bitset };
}

export interface Transition {
  readonly gains: Subset;
  readonly loses: Subset;
  /** Turned away before and now, and given something else. */
  readonly sees: Subset;
}

// As many words as stay close to the processor while all the hurdles run over them.
const BLOCK = 1024;

/** One side made ready: those who pass each hurdle, and room for those who don't, of the block in hand. */
interface Side {
  readonly told: readonly HurdleTerms[];
  readonly passes: readonly Bitset[];
  readonly open: Int32Array;
  readonly left: readonly Int32Array[];
}

const CLOSED = '';
const saidAt = ({ terms, hurdle }: HurdleTerms): string =>
  terms === null ? CLOSED : `${terms.number}${terms.aspect(hurdle.at)}`;

export function transitionBetween(
  was: readonly HurdleTerms[],
  is: readonly HurdleTerms[],
  { size, none, full }: Membership,
  select: Select,
  tally: GateTally,
): Transition {
  const room = Math.min(BLOCK, full.length);
  const sideOf = (told: readonly HurdleTerms[]): Side => ({
    told,
    passes: told.map((one) => (one.terms === null ? none : select(one, 'who'))),
    open: new Int32Array(room),
    left: told.map(() => new Int32Array(room)),
  });
  const [old, now] = [sideOf(was), sideOf(is)];
  // Places of hurdles on both sides that say the same, about items that are alike to them.
  const [saidBefore, saidAfter] = [was.map(saidAt), is.map(saidAt)];
  const alike = saidBefore.flatMap((a, i) => saidAfter.flatMap((b, j) => (a === b ? [[i, j] as const] : [])));
  const gained = new Int32Array(room);
  const lost = new Int32Array(room);
  const closed = new Int32Array(room);
  const those = new Int32Array(room);
  // Most changes take from nobody, or give to nobody.
  let gains: Bitset | null = null;
  let loses: Bitset | null = null;
  let sees: Bitset | null = null;
  let answers: Answers | null = null;
  for (let from = 0; from < full.length; from += BLOCK) {
    const length = Math.min(BLOCK, full.length - from);
    walk(old, full, from, length);
    walk(now, full, from, length);
    if (without(now.open, old.open, gained, length)) {
      gains ??= emptyBitset(size);
      copy(gained, gains, from, length);
      note(old, gained, those, from, length, 'gains', tally);
    }
    if (without(old.open, now.open, lost, length)) {
      loses ??= emptyBitset(size);
      copy(lost, loses, from, length);
      note(now, lost, those, from, length, 'loses', tally);
    }
    let someClosed = inNeither(old.open, now.open, full, from, closed, length);
    for (let pair = 0; someClosed && pair < alike.length; pair++) {
      const [i, j] = alike[pair] as readonly [number, number];
      someClosed = remove(closed, old.left[i] as Int32Array, now.left[j] as Int32Array, length);
    }
    if (!someClosed) continue;
    answers ??= answersOf(old, now, select, room);
    if (!removeSameAnswers(old, now, closed, from, length, answers)) continue;
    sees ??= emptyBitset(size);
    copy(closed, sees, from, length);
  }
  const selection = (bits: Bitset | null): Subset =>
    bits === null ? { bits: none, count: 0 } : { bits, count: countOf(bits) };
  return { gains: selection(gains), loses: selection(loses), sees: selection(sees) };
}

// Each loop over a block is a function of its own: it becomes quick by itself, and stays so.

function copy(block: Int32Array, into: Bitset, from: number, length: number): void {
  for (let at = 0; at < length; at++) into[from + at] = block[at] as number;
}

/** Puts those in both blocks into a third; false when there are none. */
function both(a: Int32Array, b: Int32Array, into: Int32Array, length: number): boolean {
  let some = 0;
  for (let at = 0; at < length; at++) {
    const those = (a[at] as number) & (b[at] as number);
    into[at] = those;
    some |= those;
  }
  return some !== 0;
}

/** Puts those in the first block and not in the second into a third; false when there are none. */
function without(a: Int32Array, b: Int32Array, into: Int32Array, length: number): boolean {
  let some = 0;
  for (let at = 0; at < length; at++) {
    const those = (a[at] as number) & ~(b[at] as number);
    into[at] = those;
    some |= those;
  }
  return some !== 0;
}

/** Puts everybody who is in neither block into a third; false when there are none. */
function inNeither(
  a: Int32Array,
  b: Int32Array,
  full: Bitset,
  from: number,
  into: Int32Array,
  length: number,
): boolean {
  let some = 0;
  for (let at = 0; at < length; at++) {
    const those = (full[from + at] as number) & ~((a[at] as number) | (b[at] as number));
    into[at] = those;
    some |= those;
  }
  return some !== 0;
}

/** Takes those in both `a` and `b` out of a block; false when nobody is left. */
function remove(block: Int32Array, a: Int32Array, b: Int32Array, length: number): boolean {
  let some = 0;
  for (let at = 0; at < length; at++) {
    const rest = (block[at] as number) & ~((a[at] as number) & (b[at] as number));
    block[at] = rest;
    some |= rest;
  }
  return some !== 0;
}

/** Takes those who get an answer out of those who wait for one, and adds them to those it is given to. */
function give(those: Int32Array, when: Bitset | null, from: number, given: Int32Array, length: number): void {
  for (let at = 0; at < length; at++) {
    const left = those[at] as number;
    const taken = when === null ? left : left & (when[from + at] as number);
    given[at] = (given[at] as number) | taken;
    those[at] = left & ~taken;
  }
}

/** The same, adding only those to whom it was given before as well. */
function giveAgain(
  those: Int32Array,
  when: Bitset | null,
  from: number,
  given: Int32Array,
  same: Int32Array,
  length: number,
): void {
  for (let at = 0; at < length; at++) {
    const left = those[at] as number;
    const taken = when === null ? left : left & (when[from + at] as number);
    same[at] = (same[at] as number) | (taken & (given[at] as number));
    those[at] = left & ~taken;
  }
}

/** Lets a block of people through the hurdles of a side; leaves those who are not let in where they failed. */
function walk({ passes, open, left }: Side, full: Bitset, from: number, length: number): void {
  for (let at = 0; at < length; at++) open[at] = full[from + at] as number;
  for (let hurdle = 0; hurdle < passes.length; hurdle++)
    pass(open, passes[hurdle] as Bitset, from, left[hurdle] as Int32Array, length);
}

function pass(open: Int32Array, passes: Bitset, from: number, left: Int32Array, length: number): void {
  for (let at = 0; at < length; at++) {
    const all = open[at] as number;
    const passed = all & (passes[from + at] as number);
    left[at] = all & ~passed;
    open[at] = passed;
  }
}

/** Notes with the gates that turned them away who gains, or loses. */
function note(
  { told, left }: Side,
  people: Int32Array,
  those: Int32Array,
  from: number,
  length: number,
  side: 'gains' | 'loses',
  tally: GateTally,
): void {
  for (let hurdle = 0; hurdle < told.length; hurdle++) {
    const { gate } = (told[hurdle] as HurdleTerms).hurdle;
    if (gate === null) continue;
    if (both(left[hurdle] as Int32Array, people, those, length))
      add(those, tally.of(gate.id)[side], from, length);
  }
}

function add(block: Int32Array, to: Bitset, from: number, length: number): void {
  for (let at = 0; at < length; at++) to[from + at] = (to[from + at] as number) | (block[at] as number);
}

/** Who gets which answer at each hurdle; answers by number, the same for those a visitor could not tell apart. */
interface Answering {
  readonly when: Bitset | null;
  readonly key: number;
}

interface Answers {
  readonly old: readonly (readonly Answering[])[];
  readonly now: readonly (readonly Answering[])[];
  /** Room for those who get each answer, for those still to be answered, and for those who get the same. */
  readonly given: readonly Int32Array[];
  readonly those: Int32Array;
  readonly same: Int32Array;
}

/** Looked up when somebody is found for whom it matters; most changes touch few. */
function answersOf(old: Side, now: Side, select: Select, room: number): Answers {
  const numbers = numbering();
  let count = 0;
  const numberOf = (key: string): number => {
    const number = numbers(key);
    count = Math.max(count, number + 1);
    return number;
  };
  const of = ({ told }: Side) =>
    told.map((one): readonly Answering[] =>
      one.terms === null
        ? [{ when: null, key: numberOf(unpublishedKey(one.item)) }]
        : one.terms.answers.map(({ when, key }, part) => ({
            when: when === null ? null : select(one, part),
            key: numberOf(key),
          })),
    );
  const both = { old: of(old), now: of(now) };
  const given = Array.from({ length: count }, () => new Int32Array(room));
  return { ...both, given, those: new Int32Array(room), same: new Int32Array(room) };
}

/** Takes out of a block of people who are turned away on both sides those who are given the same; false when nobody is left. */
function removeSameAnswers(
  old: Side,
  now: Side,
  closed: Int32Array,
  from: number,
  length: number,
  answers: Answers,
): boolean {
  const { given, those, same } = answers;
  for (const one of given) one.fill(0);
  same.fill(0);
  for (let hurdle = 0; hurdle < old.left.length; hurdle++)
    if (both(closed, old.left[hurdle] as Int32Array, those, length))
      for (const { when, key } of answers.old[hurdle] ?? [])
        give(those, when, from, given[key] as Int32Array, length);
  for (let hurdle = 0; hurdle < now.left.length; hurdle++)
    if (both(closed, now.left[hurdle] as Int32Array, those, length))
      for (const { when, key } of answers.now[hurdle] ?? [])
        giveAgain(those, when, from, given[key] as Int32Array, same, length);
  return remove(closed, same, same, length);
}
