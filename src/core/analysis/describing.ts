/**
 * Saying who is in a set, with as little as will do: a term is picked, widened as far as the set goes and taken out of it,
 * until nothing is left (as two-level minimisers do; R. K. Brayton et al., Logic Minimization Algorithms for VLSI Synthesis,
 * 1984). What is said is proved to be true of the set and of nobody else.
 */
import { all, any, type Condition, FALSE, guests, not, signedIn, TRUE, type Truth } from '../condition';
import { asksAbout } from '../policy';
import { ALL, type Diagram, NONE } from './diagram';
import type { Reach } from './reach';
import { ACCOUNT } from './things';

/** What takes more terms than this is told in no fewer words than it is shown. */
const MOST_TERMS = 6;

/** The cells of each variable that matters. */
type Term = ReadonlyMap<number, ReadonlySet<number>>;

/**
 * Answers with a condition that is true of a set and of nobody else in the universe, which everything that is said of has to
 * be within; null where there is no short one. `now` leaves of a set those who ask at the moment that it is said of. Whether
 * somebody is signed in has to be among what was asked.
 */
export function describer(
  reach: Reach,
  universe: Diagram,
  now: (set: Diagram) => Diagram,
): (set: Diagram) => Condition | null {
  const { space, cells, compiled } = reach;
  const within = (condition: Condition): Diagram => space.and(universe, now(reach.meeting(condition, null)));
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

  /** Leaves out of a term, or widens, whatever does not keep somebody out who is to be kept out; later things first. */
  function widened(begin: Term, outside: Diagram): Term {
    const order = [...begin.keys()].toSorted((a, b) => b - a);
    const constraint = (variable: number, chosen: ReadonlySet<number>) =>
      space.where(
        variable,
        cellsOf(variable, (cell) => chosen.has(cell)),
      );
    // What the variables from a place on still say by themselves.
    const rest: Diagram[] = [ALL];
    for (const variable of order.toReversed())
      rest.unshift(space.and(rest[0] ?? ALL, constraint(variable, begin.get(variable) ?? new Set())));
    const term = new Map<number, ReadonlySet<number>>();
    let left = outside;
    order.forEach((variable, at) => {
      const after = rest[at + 1] ?? ALL;
      const fits = (those: Diagram) => space.and(those, after) === NONE;
      if (fits(left)) return;
      let chosen = begin.get(variable) ?? new Set<number>();
      let kept = space.and(left, constraint(variable, chosen));
      for (const cell of cellsOf(variable, (one) => one)) {
        if (chosen.has(cell)) continue;
        const wider = new Set([...chosen, cell]);
        const those = space.and(left, constraint(variable, wider));
        if (fits(those)) [chosen, kept] = [wider, those];
      }
      term.set(variable, chosen);
      left = kept;
    });
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
    if (set === NONE) return null;
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
    return within(whole) === set ? whole : null;
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
