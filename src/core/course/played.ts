/** What of a video was played: ranges of seconds, so that skipping to the end is not watching. */

export type Ranges = readonly (readonly [from: number, to: number])[];

/** The share of a video from which on it counts as watched. */
export const WATCHED = 0.9;
const MOST_RANGES = 200;
/** In seconds: what is nearer together than this is one. */
const GAP = 0.5;

/** Ranges in their order, those that touch joined; what is none is left out. */
export function joinedRanges(ranges: Ranges): Ranges {
  const made: [number, number][] = [];
  const real = ranges.filter(([from, to]) => from >= 0 && to > from && Number.isFinite(to));
  for (const [from, to] of real.toSorted(([one], [other]) => one - other)) {
    const last = made.at(-1);
    if (last && from <= last[1] + GAP) last[1] = Math.max(last[1], to);
    else made.push([from, to]);
  }
  return made.slice(0, MOST_RANGES);
}

/** Which share of a video of so many seconds they are: 0 to 1. */
export const playedShare = (ranges: Ranges, seconds: number): number =>
  seconds > 0
    ? joinedRanges(ranges.map(([from, to]) => [from, Math.min(to, seconds)] as const)).reduce(
        (sum, [from, to]) => sum + to - from,
        0,
      ) / seconds
    : 0;
