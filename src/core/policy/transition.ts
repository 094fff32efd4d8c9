/**
 * What changes for a membership between two lists of hurdles, word by word: for each 32 people the old and the new list are
 * walked in registers, and nothing is allocated but the answer. Who was turned away by a gate that still says the same, and
 * is turned away by it, notices nothing; only for the rest is it looked up who gets what.
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

/** One side made ready: a bitset of those who pass for each hurdle, and room for those who don't. */
interface Side {
  readonly told: readonly HurdleTerms[];
  readonly passes: readonly Bitset[];
  readonly left: Int32Array;
  /** Where those who gain, or lose, are noted for each hurdle; looked up when there is somebody. */
  readonly noted: (Bitset | null)[];
}

/** A word with its sign: beyond 31 bits numbers would no longer be integers to the processor. */
const asInt = (bits: Bitset, word: number): number => (bits[word] as number) | 0;

const CLOSED = -1;
const termsOf = ({ terms }: HurdleTerms): number => terms?.number ?? CLOSED;

export function transitionBetween(
  was: readonly HurdleTerms[],
  is: readonly HurdleTerms[],
  { size, none, full }: Membership,
  select: Select,
  tally: GateTally,
): Transition {
  const sideOf = (told: readonly HurdleTerms[]): Side => ({
    told,
    passes: told.map((one) => (one.terms === null ? none : select(one, 'who'))),
    left: new Int32Array(told.length),
    noted: told.map(() => null),
  });
  const [old, now] = [sideOf(was), sideOf(is)];
  // Places of hurdles on both sides that say the same, about the same item where it matters.
  const alike = was.flatMap((a, i) =>
    is.flatMap((b, j) =>
      termsOf(a) === termsOf(b) && (!a.terms?.aboutItem || a.hurdle.at === b.hurdle.at)
        ? [[i, j] as const]
        : [],
    ),
  );
  // Most changes take from nobody, or give to nobody.
  let gains: Bitset | null = null;
  let loses: Bitset | null = null;
  let sees: Bitset | null = null;
  let answers: Answers | null = null;
  for (let word = 0; word < full.length; word++) {
    const all = asInt(full, word);
    const before = walk(old, word, all);
    const after = walk(now, word, all);
    const gained = after & ~before;
    const lost = before & ~after;
    if (gained !== 0) {
      gains ??= emptyBitset(size);
      gains[word] = gained;
      note(old, word, gained, 'gains', tally);
    }
    if (lost !== 0) {
      loses ??= emptyBitset(size);
      loses[word] = lost;
      note(now, word, lost, 'loses', tally);
    }
    let closed = all & ~before & ~after;
    for (let at = 0; closed !== 0 && at < alike.length; at++) {
      const [i, j] = alike[at] as readonly [number, number];
      closed &= ~((old.left[i] as number) & (now.left[j] as number));
    }
    if (closed !== 0) {
      answers ??= answersOf(old, now, select);
      const noticing = closed & ~sameAnswers(old, now, word, closed, answers);
      if (noticing !== 0) {
        sees ??= emptyBitset(size);
        sees[word] = noticing;
      }
    }
  }
  const selection = (bits: Bitset | null): Subset =>
    bits === null ? { bits: none, count: 0 } : { bits, count: countOf(bits) };
  return { gains: selection(gains), loses: selection(loses), sees: selection(sees) };
}

/** Lets 32 people through the hurdles of a side; answers those who are let in, and leaves those who are not where they failed. */
function walk({ passes, left }: Side, word: number, all: number): number {
  let open = all;
  for (let at = 0; at < passes.length; at++) {
    const pass = asInt(passes[at] as Bitset, word);
    left[at] = open & ~pass;
    open &= pass;
  }
  return open;
}

/** Notes with the gates that turned them away who gains, or loses. */
function note(
  { told, left, noted }: Side,
  word: number,
  people: number,
  side: 'gains' | 'loses',
  tally: GateTally,
): void {
  for (let at = 0; at < told.length; at++) {
    const those = (left[at] as number) & people;
    const gate = (told[at] as HurdleTerms).hurdle.gate;
    if (those === 0 || gate === null) continue;
    const bits = noted[at] ?? tally.of(gate.id)[side];
    noted[at] = bits;
    bits[word] = (bits[word] as number) | those;
  }
}

/** Who gets which answer at each hurdle; answers by number, the same for those a visitor could not tell apart. */
interface Answering {
  readonly when: Bitset | null;
  readonly key: number;
}

interface Answers {
  readonly old: readonly (readonly Answering[])[];
  readonly now: readonly (readonly Answering[])[];
  /** Room for those who get each answer. */
  readonly given: Int32Array;
}

/** Looked up when somebody is found for whom it matters; most changes touch few. */
function answersOf(old: Side, now: Side, select: Select): Answers {
  const numberOf = numbering();
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
  return { ...both, given: new Int32Array([...both.old, ...both.now].flat().length) };
}

/** Of some people who are turned away on both sides, those who are given the same on both. */
function sameAnswers(old: Side, now: Side, word: number, people: number, answers: Answers): number {
  const { given } = answers;
  given.fill(0);
  for (let at = 0; at < old.left.length; at++) {
    let those = (old.left[at] as number) & people;
    const list = answers.old[at] as readonly Answering[];
    for (let part = 0; those !== 0 && part < list.length; part++) {
      const { when, key } = list[part] as Answering;
      const taken = when === null ? those : those & asInt(when, word);
      given[key] = (given[key] as number) | taken;
      those &= ~taken;
    }
  }
  let same = 0;
  for (let at = 0; at < now.left.length; at++) {
    let those = (now.left[at] as number) & people;
    const list = answers.now[at] as readonly Answering[];
    for (let part = 0; those !== 0 && part < list.length; part++) {
      const { when, key } = list[part] as Answering;
      const taken = when === null ? those : those & asInt(when, word);
      same |= taken & (given[key] as number);
      those &= ~taken;
    }
  }
  return same;
}
