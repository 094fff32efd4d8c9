/**
 * Merging runs, as whoever sorts more than can be sorted at once does: texts of lines, each in order, come to short texts of
 * lines that follow one another.
 */
import { firstNotBefore } from './first-not-before';

/** Stands before every line, and in none. */
export const BREAK = '\n';

export const textOf = (lines: readonly string[]): string => ['', ...lines].join(BREAK);

export const linesOf = (text: string): string[] => text.split(BREAK).slice(1);

/** By what lines are put in order. */
export interface Ordering<H> {
  readonly of: (line: string) => H;
  /** The order of two of them; it has to tell any two apart. */
  readonly order: (a: H, b: H) => number;
}

/** Texts of so many lines each, but for the last. */
export function* mergedRuns<H>(
  all: Iterable<string>,
  { of, order }: Ordering<H>,
  inText: number,
): Generator<string> {
  const runs = [...all].filter((run) => run !== '');
  /** Of each run, the line that comes next, what it is put in order by, and where the break after it is, if there is one. */
  const line: string[] = [];
  const by: H[] = [];
  const end = new Int32Array(runs.length);
  /** The runs that are not over, that whose line comes last first. */
  const waiting = new Uint32Array(runs.length);
  let count = 0;
  const put = (run: number, at: number): void => {
    const text = runs[run] as string;
    const to = text.indexOf(BREAK, at + 1);
    const next = to < 0 ? text.slice(at + 1) : text.slice(at + 1, to);
    const mine = of(next);
    line[run] = next;
    by[run] = mine;
    end[run] = to;
    const from = firstNotBefore(waiting, (one) => order(mine, by[one] as H), count);
    waiting.copyWithin(from + 1, from, count);
    waiting[from] = run;
    count += 1;
  };
  for (const run of runs.keys()) put(run, 0);
  let lines: string[] = [];
  while (count > 0) {
    count -= 1;
    const run = waiting[count] as number;
    lines.push(line[run] as string);
    const to = end[run] as number;
    if (to >= 0) put(run, to);
    if (lines.length < inText) continue;
    yield textOf(lines);
    lines = [];
  }
  if (lines.length > 0) yield textOf(lines);
}
