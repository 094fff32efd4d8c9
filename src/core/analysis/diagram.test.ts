/** Diagrams against sets of assignments that are written out. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ALL, type Diagram, type Diagrams, diagrams, NONE, Undecided } from './diagram';

const CELLS = [2, 3, 4, 2] as const;

/** Every assignment there is. */
const assignments: readonly (readonly number[])[] = CELLS.reduce<readonly (readonly number[])[]>(
  (made, cells) => made.flatMap((one) => Array.from({ length: cells }, (_, cell) => [...one, cell])),
  [[]],
);

/** A set as it is built, and as whether it holds each assignment. */
type Term =
  | { readonly op: 'where'; readonly variable: number; readonly has: readonly boolean[] }
  | { readonly op: 'and' | 'or'; readonly a: Term; readonly b: Term }
  | { readonly op: 'not'; readonly a: Term };

const terms: fc.Arbitrary<Term> = fc.letrec<{ term: Term }>((tie) => ({
  term: fc.oneof(
    { maxDepth: 5, depthSize: 'small' },
    fc
      .nat(CELLS.length - 1)
      .chain((variable) =>
        fc
          .array(fc.boolean(), { minLength: CELLS[variable] ?? 0, maxLength: CELLS[variable] ?? 0 })
          .map((has): Term => ({ op: 'where', variable, has })),
      ),
    fc
      .tuple(fc.constantFrom('and' as const, 'or' as const), tie('term'), tie('term'))
      .map(([op, a, b]): Term => ({ op, a, b })),
    tie('term').map((a): Term => ({ op: 'not', a })),
  ),
})).term;

function built(term: Term, space: Diagrams): Diagram {
  if (term.op === 'where') return space.where(term.variable, term.has);
  if (term.op === 'not') return space.not(built(term.a, space));
  return space[term.op](built(term.a, space), built(term.b, space));
}

function holds(term: Term, at: readonly number[]): boolean {
  if (term.op === 'where') return term.has[at[term.variable] ?? 0] === true;
  if (term.op === 'not') return !holds(term.a, at);
  return term.op === 'and' ? holds(term.a, at) && holds(term.b, at) : holds(term.a, at) || holds(term.b, at);
}

describe('a diagram', () => {
  it('holds what was put into it, and equal sets are one', () => {
    fc.assert(
      fc.property(terms, terms, (one, other) => {
        const space = diagrams(CELLS);
        const sets = [built(one, space), built(other, space)] as const;
        for (const at of assignments)
          expect(space.has(sets[0], (variable) => at[variable] ?? 0)).toBe(holds(one, at));
        const alike = assignments.every((at) => holds(one, at) === holds(other, at));
        expect(sets[0] === sets[1]).toBe(alike);
      }),
    );
  });

  it('picks something that is in it', () => {
    fc.assert(
      fc.property(terms, (term) => {
        const space = diagrams(CELLS);
        const set = built(term, space);
        const picked = space.pick(set);
        expect(picked === null).toBe(!assignments.some((at) => holds(term, at)));
        if (picked)
          expect(
            holds(
              term,
              CELLS.map((_, variable) => picked.get(variable) ?? 0),
            ),
          ).toBe(true);
      }),
    );
  });

  it('knows what is left when a variable is known', () => {
    fc.assert(
      fc.property(terms, fc.nat(CELLS.length - 1), (term, variable) => {
        const space = diagrams(CELLS);
        const set = built(term, space);
        const cells = Array.from({ length: CELLS[variable] ?? 0 }, (_, cell) => cell);
        const given = cells.map((cell) => space.given(set, variable, cell));
        const is = (cell: number) =>
          space.where(
            variable,
            cells.map((one) => one === cell),
          );
        expect(space.any(given.map((one, cell) => space.and(is(cell), one)))).toBe(set);
      }),
    );
  });

  it('knows what is left when some variables may be in any cell', () => {
    fc.assert(
      fc.property(terms, fc.subarray(CELLS.map((_, variable) => variable)), (term, freed) => {
        const space = diagrams(CELLS);
        const set = built(term, space);
        const oneByOne = freed.reduce<Diagram>(
          (left, variable) =>
            space.any(
              Array.from({ length: CELLS[variable] ?? 0 }, (_, cell) => space.given(left, variable, cell)),
            ),
          set,
        );
        expect(space.somehow(set, (variable) => freed.includes(variable))).toBe(oneByOne);
      }),
    );
  });

  it('says when it is too large, and decides nothing', () => {
    const space = diagrams(
      Array.from({ length: 40 }, () => 2),
      20_000,
    );
    const odd = () =>
      Array.from({ length: 40 }, (_, at) => space.where(at, [false, true])).reduce(
        (a, b) => space.or(space.and(a, space.not(b)), space.and(space.not(a), b)),
        NONE,
      );
    // Parity of forty is small in any order; which of two halves has more is not.
    expect(space.has(odd(), (variable) => (variable === 7 ? 1 : 0))).toBe(true);
    const pairs = () =>
      space.all(
        Array.from({ length: 20 }, (_, at) => {
          const [a, b] = [space.where(at, [false, true]), space.where(at + 20, [false, true])];
          return space.or(space.and(a, b), space.and(space.not(a), space.not(b)));
        }),
      );
    const before = odd();
    const size = space.size();
    expect(() => space.attempt(pairs)).toThrow(Undecided);
    // What was tried has left no trace, and what was there is there.
    expect(space.size()).toBe(size);
    expect(odd()).toBe(before);
    expect(pairs).toThrow(Undecided);
    expect(space.and(ALL, NONE)).toBe(NONE);
  });
});
