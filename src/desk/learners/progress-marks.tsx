/**
 * The marks of progress: a family of its own, beside those of decisions. What fills up is what was done; a bar lies where
 * nobody gets by.
 */
import { keysOf, PROGRESS, type Progress } from '@/core';

/** A mark as a path around a point, for many of them in one drawing. */
export const MARKS: Readonly<Record<Progress, (x: number, y: number) => string>> = {
  closed: (x, y) => `M${x - 5} ${y - 1.25}h10v2.5h-10z`,
  'to do': (x, y) => `${ring(x, y, 3.5)}${ring(x, y, 2.25)}`,
  begun: (x, y) => `${ring(x, y, 6)}${ring(x, y, 4.75)}M${x} ${y - 5.5}a5.5 5.5 0 0 0 0 11z`,
  waiting: (x, y) => `${ring(x, y, 6)}${ring(x, y, 4.75)}${ring(x, y, 2.5)}`,
  done: (x, y) => ring(x, y, 6),
};

const ring = (x: number, y: number, r: number): string =>
  `M${x - r} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0z`;

export const COLOURS: Readonly<Record<Progress, string>> = {
  closed: 'var(--message)',
  'to do': 'var(--ink-quiet)',
  begun: 'var(--teaser)',
  waiting: 'var(--copper)',
  done: 'var(--open)',
};

/** One mark by itself. Said in words beside it. */
export const ProgressMark = ({ state }: { readonly state: Progress }) => (
  <svg width={16} height={16} viewBox="0 0 16 16" aria-hidden="true" className="shrink-0">
    <path d={MARKS[state](8, 8)} fill={COLOURS[state]} fillRule="evenodd" />
  </svg>
);

export const ProgressLegend = () => (
  <p className="flex flex-wrap gap-x-4 gap-y-1 text-quiet text-xs">
    {keysOf(PROGRESS)
      .toReversed()
      .map((state) => (
        <span key={state} className="inline-flex items-center gap-1.5">
          <ProgressMark state={state} /> {PROGRESS[state].words}
        </span>
      ))}
    <span>a number: done, with a score</span>
    <span className="inline-flex items-center gap-1.5">
      <span aria-hidden="true" className="inline-block h-3 w-4 bg-thin" /> how many did it
    </span>
    <span className="inline-flex items-center gap-1.5">
      <span aria-hidden="true" className="inline-block h-3 w-1.5 bg-copper" /> how many stand at it; in
      copper, where most do
    </span>
  </p>
);
