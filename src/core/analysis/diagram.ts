/**
 * Multi-valued decision diagrams, ordered, reduced and shared (R. E. Bryant, Graph-Based Algorithms for Boolean Function
 * Manipulation, 1986; T. Kam et al., Multi-valued decision diagrams, 1998): sets of assignments that give each variable one
 * of its cells. Equal sets are the same number, so that asking whether two are equal is comparing numbers.
 */

import { PairTable } from './pair-table';

/** A set of assignments. */
export type Diagram = number & { readonly brand: 'diagram' };

export const NONE = 0 as Diagram;
export const ALL = 1 as Diagram;

/** A cell for each variable that matters, by the number of the variable. */
export type Assignment = ReadonlyMap<number, number>;

/** Something is larger than anybody would wait for. Nothing was decided. */
export class Undecided extends Error {}

/** Why nothing was decided, where that is all there is to say. */
export const TOO_MUCH = 'There is too much to work out: its conditions multiply.';

/** Goes on with so many of something, or throws `Undecided` where they are too many. */
export function atMost(most: number, count: number): void {
  if (count > most) throw new Undecided(TOO_MUCH);
}

/** What is worked out, or something else with the reason where that is not decided. */
export function orElse<T, U>(work: () => T, otherwise: (reason: Undecided) => U): T | U {
  try {
    return work();
  } catch (error) {
    if (error instanceof Undecided) return otherwise(error);
    throw error;
  }
}

export interface Diagrams {
  /** The set of assignments whose cell of a variable is in a set: `has[cell]` says whether it is. */
  where(variable: number, has: readonly boolean[]): Diagram;
  /** The set that is another one for each cell of a variable. These may depend on later variables alone. */
  choose(variable: number, sets: readonly Diagram[]): Diagram;
  and(a: Diagram, b: Diagram): Diagram;
  or(a: Diagram, b: Diagram): Diagram;
  not(a: Diagram): Diagram;
  all(sets: Iterable<Diagram>): Diagram;
  any(sets: Iterable<Diagram>): Diagram;
  /** The set once a variable is known to be in one cell. */
  given(set: Diagram, variable: number, cell: number): Diagram;
  /** Those that are in the set in some cell of each of some variables, in whichever they are. */
  somehow(set: Diagram, isOne: (variable: number) => boolean): Diagram;
  has(set: Diagram, cellOf: (variable: number) => number): boolean;
  /** One assignment of a set, with the first cells that do; null for the empty set. */
  pick(set: Diagram): Assignment | null;
  /**
   * Works something out with a part of the room there is. What it throws `Undecided` for leaves no trace, so that others have
   * their part; nothing that was made within may be kept before it is done.
   */
  attempt<T>(work: () => T, part?: number): T;
  /** How large a part of all assignments a set is, from 0 to 1. */
  share(set: Diagram): number;
  /** How many nodes there are in all. */
  size(): number;
}

const TERMINAL = Number.MAX_SAFE_INTEGER;

/** How often two sets may be looked at together, for each node that there may be. */
const LOOKS = 10;
/** One attempt may take the space divided by this, where nothing else is said. */
const SHARE = 8;

/** Makes a space of diagrams over variables with so many cells each; it throws `Undecided` past so many nodes. */
export function diagrams(cells: readonly number[], most = 400_000): Diagrams {
  let room = most;
  let looks = 0;
  let mostLooks = most * LOOKS;
  /** Looks that were for nothing count all the same: many attempts take no longer than one that takes everything. */
  let spent = 0;
  const variables: number[] = [TERMINAL, TERMINAL];
  const children: (readonly Diagram[])[] = [[], []];
  /** The number of each list of two sets or more, made of the number of the list without the last one and of that. */
  const lists = new PairTable();
  let listCount = 0;
  /** The node of each variable with each list. */
  const known = new PairTable();
  const memories: { clear(): void }[] = [];

  const variableOf = (set: Diagram): number => variables[set] ?? TERMINAL;
  /** What a set is in each cell of a variable that is not after its own. */
  const inCell = (set: Diagram, variable: number, cell: number): Diagram =>
    variableOf(set) === variable ? (children[set]?.[cell] ?? NONE) : set;

  function listOf(sets: readonly Diagram[]): number {
    let list: number = sets[0] ?? NONE;
    for (let at = 1; at < sets.length; at++) {
      const last = sets[at] ?? NONE;
      let longer = lists.get(list, last);
      if (longer < 0) {
        // Numbers of lists and of sets are told apart by how long the list is, which is the same for one variable.
        longer = listCount++;
        lists.set(list, last, longer);
      }
      list = longer;
    }
    return list;
  }

  const isOne = (sets: readonly Diagram[]): boolean => {
    for (let at = 1; at < sets.length; at++) if (sets[at] !== sets[0]) return false;
    return true;
  };

  function node(variable: number, sets: readonly Diagram[]): Diagram {
    if (isOne(sets)) return sets[0] ?? NONE;
    const list = listOf(sets);
    const found = known.get(variable, list);
    if (found >= 0) return found as Diagram;
    if (variables.length >= room) throw new Undecided(TOO_MUCH);
    const made = variables.length as Diagram;
    variables.push(variable);
    children.push(sets);
    known.set(variable, list, made);
    return made;
  }

  function overCells(variable: number, of: (cell: number) => Diagram): Diagram {
    const sets: Diagram[] = [];
    const count = cells[variable] ?? 0;
    for (let cell = 0; cell < count; cell++) sets.push(of(cell));
    return node(variable, sets);
  }

  /** Combines two sets cell by cell; `settled` answers for pairs that need no more looking. */
  function combining(settled: (a: Diagram, b: Diagram) => Diagram | null) {
    const memory = new PairTable();
    memories.push(memory);
    const combine = (a: Diagram, b: Diagram): Diagram => {
      const [low, high] = a < b ? [a, b] : [b, a];
      const atOnce = settled(low, high);
      if (atOnce !== null) return atOnce;
      const found = memory.get(low, high);
      if (found >= 0) return found as Diagram;
      if (++looks > mostLooks || ++spent > most * LOOKS) throw new Undecided(TOO_MUCH);
      const [own, other] = [variableOf(low), variableOf(high)];
      const variable = Math.min(own, other);
      const ofLow = own === variable ? children[low] : undefined;
      const ofHigh = other === variable ? children[high] : undefined;
      const sets: Diagram[] = [];
      const count = cells[variable] ?? 0;
      for (let cell = 0; cell < count; cell++)
        sets.push(combine(ofLow ? (ofLow[cell] ?? NONE) : low, ofHigh ? (ofHigh[cell] ?? NONE) : high));
      const made = node(variable, sets);
      memory.set(low, high, made);
      return made;
    };
    return combine;
  }
  // The smaller number comes first, and the two that are not nodes are the smallest.
  const and = combining((a, b) => (a === NONE || a === b ? a : a === ALL ? b : null));
  const or = combining((a, b) => (a === ALL || a === b ? a : b === ALL ? b : a === NONE ? b : null));

  function rewriting(change: (set: Diagram) => Diagram | null, memory: Map<Diagram, Diagram> = new Map()) {
    const rewrite = (set: Diagram): Diagram => {
      const found = change(set) ?? memory.get(set);
      if (found !== undefined) return found;
      const variable = variableOf(set);
      const made = overCells(variable, (cell) => rewrite(inCell(set, variable, cell)));
      memory.set(set, made);
      return made;
    };
    return rewrite;
  }
  const denied = new Map<Diagram, Diagram>();
  memories.push(denied);
  const not = rewriting((set) => (set === NONE ? ALL : set === ALL ? NONE : null), denied);
  const any = (sets: Iterable<Diagram>): Diagram => [...sets].reduce(or, NONE);

  /** Takes back what was made since there were so many nodes. Nobody may have kept any of it. */
  function takeBack(to: number): void {
    for (let at = to; at < variables.length; at++)
      known.delete(variables[at] ?? 0, listOf(children[at] ?? []));
    variables.length = to;
    children.length = to;
    for (const memory of memories) memory.clear();
  }

  return {
    attempt(work, part = SHARE) {
      if (room !== most) throw new Error('What is tried out can’t be tried out within something else.');
      const before = variables.length;
      looks = 0;
      room = Math.min(most - 1, before + Math.floor(most / part));
      mostLooks = Math.floor(most / part) * LOOKS;
      try {
        return work();
      } catch (error) {
        if (error instanceof Undecided) takeBack(before);
        throw error;
      } finally {
        looks = 0;
        room = most;
        mostLooks = most * LOOKS;
      }
    },
    where: (variable, has) => overCells(variable, (cell) => (has[cell] ? ALL : NONE)),
    choose: (variable, sets) => overCells(variable, (cell) => sets[cell] ?? NONE),
    and,
    or,
    not,
    all: (sets) => [...sets].reduce(and, ALL),
    any,
    given: (set, variable, cell) =>
      rewriting((one) =>
        variableOf(one) > variable ? one : variableOf(one) === variable ? inCell(one, variable, cell) : null,
      )(set),
    somehow(set, isOne) {
      const known = new Map<Diagram, Diagram>([
        [NONE, NONE],
        [ALL, ALL],
      ]);
      const rewrite = (one: Diagram): Diagram => {
        const found = known.get(one);
        if (found !== undefined) return found;
        const variable = variableOf(one);
        const parts = (children[one] ?? []).map(rewrite);
        const made = isOne(variable) ? any(parts) : node(variable, parts);
        known.set(one, made);
        return made;
      };
      return rewrite(set);
    },
    has(set, cellOf) {
      let at = set;
      while (at > ALL) at = inCell(at, variableOf(at), cellOf(variableOf(at)));
      return at === ALL;
    },
    pick(set) {
      if (set === NONE) return null;
      const picked = new Map<number, number>();
      let at = set;
      while (at > ALL) {
        const variable = variableOf(at);
        // In a reduced diagram everything but the empty set leads to an assignment.
        const cell = (children[at] ?? []).findIndex((child) => child !== NONE);
        picked.set(variable, cell);
        at = inCell(at, variable, cell);
      }
      return picked;
    },
    share(set) {
      const known = new Map<Diagram, number>([
        [NONE, 0],
        [ALL, 1],
      ]);
      const of = (one: Diagram): number => {
        const found = known.get(one);
        if (found !== undefined) return found;
        const parts = children[one] ?? [];
        const share = parts.reduce((sum, part) => sum + of(part), 0) / Math.max(1, parts.length);
        known.set(one, share);
        return share;
      };
      return of(set);
    },
    size: () => variables.length,
  };
}
