/**
 * Saying who is in a set, with as little as will do: a term is picked, widened as far as the set goes and taken out of it,
 * until nothing is left (as two-level minimisers do; R. K. Brayton et al., Logic Minimization Algorithms for VLSI Synthesis,
 * 1984). What is said is proved to be true of the set and of nobody else.
 */
import { all, any, type Condition, FALSE, guests, not, signedIn, TRUE, type Truth } from '../condition';
import { asksAbout } from '../policy';
import { type Diagram, NONE } from './diagram';
import type { Reach } from './reach';
import { simplerThan } from './simpler';
import { ACCOUNT } from './things';

/** What takes more terms than this is told in no fewer words than it is shown. */
const MOST_TERMS = 6;

/** The cells of each variable that matters. */
type Term = ReadonlyMap<number, ReadonlySet<number>>;

/**
 * Answers with a condition that is true of a set and of nobody else in the universe, which everything that is said of has to
 * be within; null where there is no short one. Whether somebody is signed in has to be among what was asked.
 */
export function describer(reach: Reach, universe: Diagram): (set: Diagram) => Condition | null {
  const { space, cells, compiled } = reach;
  const within = (condition: Condition): Diagram => space.and(universe, reach.meeting(condition, null));
  const setOf = (term: Term): Diagram =>
    space.all([
      universe,
      ...[...term].map(([variable, chosen]) =>
        space.where(
          variable,
          cellsOf(variable, (cell) => chosen.has(cell)),
        ),
      ),
    ]);
  const cellsOf = <T>(variable: number, of: (cell: number) => T): T[] =>
    Array.from({ length: cells.things[variable]?.cells.length ?? 0 }, (_, cell) => of(cell));

  function widened(begin: Term, outside: Diagram): Term {
    const fits = (term: Term) => space.and(setOf(term), outside) === NONE;
    let term = begin;
    for (const variable of [...begin.keys()].toReversed()) {
      const without = new Map(term);
      without.delete(variable);
      if (fits(without)) {
        term = without;
        continue;
      }
      for (const cell of cellsOf(variable, (one) => one)) {
        const wider = new Map(term).set(variable, new Set([...(term.get(variable) ?? []), cell]));
        if (fits(wider)) term = wider;
      }
    }
    return term;
  }

  /** What a variable's being in some of its cells says, of members and today. */
  const labels = new Map<string, Condition | null>();
  function labelOf(variable: number, chosen: ReadonlySet<number>): Condition | null {
    const key = `${variable} ${[...chosen].toSorted().join()}`;
    const found = labels.get(key);
    if (found !== undefined) return found;
    const made = label(variable, chosen);
    labels.set(key, made);
    return made;
  }

  function label(variable: number, chosen: ReadonlySet<number>): Condition | null {
    if (cells.things[variable]?.thing.kind === ACCOUNT) return chosen.has(1) ? signedIn : guests;
    const literals = cells.askedOf(variable).flatMap((asked): readonly Literal[] => {
      // What is told of an item can't be said of a visitor.
      if (asksAbout(asked.test, compiled.vocabulary)) return [];
      const { reads, at } = cells.tableOf(asked);
      const truths = cellsOf(variable, (cell) =>
        at(reads.map((one) => (one === variable ? cell : first(one)))),
      );
      return [literal(asked.test, truths, TRUE), literal(not(asked.test), truths, FALSE)];
    });
    const wanted = cellsOf(variable, (cell) => chosen.has(cell));
    const single = literals.find(({ holds }) => alike(holds, wanted));
    if (single) return single.condition;
    for (const [at, one] of literals.entries())
      for (const other of literals.slice(0, at)) {
        if (
          alike(
            both(one.holds, other.holds, (a, b) => a && b),
            wanted,
          )
        )
          return all(other.condition, one.condition);
        if (
          alike(
            both(one.holds, other.holds, (a, b) => a || b),
            wanted,
          )
        )
          return any(other.condition, one.condition);
      }
    // Cell by cell, by everything that holds there.
    const cellwise = [...chosen].map((cell) =>
      all(...literals.flatMap(({ holds, condition }) => (holds[cell] ? [condition] : []))),
    );
    return any(...cellwise);
  }

  /** Signed in, and the first day there is: those that others are told by. */
  const first = (variable: number): number => (cells.things[variable]?.thing.kind === ACCOUNT ? 1 : 0);

  return (set) => {
    const outside = space.and(universe, space.not(set));
    if (outside === NONE) return all();
    const terms: Condition[] = [];
    for (let left = set; left !== NONE; ) {
      const picked = space.pick(left);
      if (picked === null || terms.length === MOST_TERMS) return null;
      const begin = new Map([...picked].map(([variable, cell]) => [variable, new Set([cell])]));
      const term = widened(begin, outside);
      const parts = [...term]
        .toSorted(([a], [b]) => a - b)
        .map(([variable, chosen]) => labelOf(variable, chosen));
      if (parts.some((part) => part === null)) return null;
      // What somebody is comes before what they are not.
      const said = (parts as readonly Condition[]).toSorted((a, b) => denials(a) - denials(b));
      terms.push(joined(said, all));
      left = space.and(left, space.not(setOf(term)));
    }
    const whole = joined(terms, any);
    if (within(whole) !== set) return null;
    return simplerThan(whole, (one) => within(one) === set) ?? whole;
  };
}

interface Literal {
  readonly condition: Condition;
  readonly holds: readonly boolean[];
}

const literal = (condition: Condition, truths: readonly Truth[], wanted: Truth): Literal => ({
  condition,
  holds: truths.map((truth) => truth === wanted),
});
const alike = (a: readonly boolean[], b: readonly boolean[]): boolean => a.every((one, at) => one === b[at]);
const both = (
  a: readonly boolean[],
  b: readonly boolean[],
  join: (a: boolean, b: boolean) => boolean,
): readonly boolean[] => a.map((one, at) => join(one, b[at] ?? false));
const joined = (
  parts: readonly Condition[],
  join: (...parts: readonly Condition[]) => Condition,
): Condition => {
  const [only] = parts;
  return parts.length === 1 && only ? only : join(...parts);
};

const denials = ({ kind }: Condition): number => (kind === 'not' ? 1 : 0);
