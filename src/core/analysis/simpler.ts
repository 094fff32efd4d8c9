/** Saying a condition with less: whatever can be left out so that it is true of the same visitors still. */
import type { Condition } from '../condition';

/** Larger ones are left as they are: each part is tried out. */
const MOST_TESTS = 24;

/** The shortest condition that leaving out parts leads to, step by step, while it stays equal; null where there is none. */
export function simplerThan(who: Condition, isEqual: (condition: Condition) => boolean): Condition | null {
  if (sizeOf(who) > MOST_TESTS) return null;
  let best = who;
  for (;;) {
    const next = lesser(best)
      .toSorted((a, b) => sizeOf(a) - sizeOf(b))
      .find((one) => sizeOf(one) < sizeOf(best) && isEqual(one));
    if (!next) return best === who ? null : best;
    best = next;
  }
}

/** How many tests and audiences are written in a condition. */
function sizeOf(condition: Condition): number {
  switch (condition.kind) {
    case 'all':
    case 'any':
      return condition.of.reduce((sum, part) => sum + sizeOf(part), 0);
    case 'not':
      return sizeOf(condition.of);
    case 'audience':
    case 'test':
      return 1;
    default:
      return condition satisfies never;
  }
}

/** Conditions with one part less, and each part by itself. */
function lesser(condition: Condition): readonly Condition[] {
  switch (condition.kind) {
    case 'all':
    case 'any': {
      const { of, kind } = condition;
      const group = (parts: readonly Condition[]): Condition => {
        const [only] = parts;
        return parts.length === 1 && only ? only : { kind, of: parts };
      };
      return [
        ...of,
        ...of.map((_, at) => group(of.toSpliced(at, 1))),
        ...of.flatMap((part, at) => lesser(part).map((one) => group(of.with(at, one)))),
      ];
    }
    case 'not':
      return lesser(condition.of).map((of): Condition => ({ kind: 'not', of }));
    case 'audience':
    case 'test':
      return [];
    default:
      return condition satisfies never;
  }
}
