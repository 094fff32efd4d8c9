/** Parameters of one statement are limited; rows are read and written in slices of this many. */
const SLICE = 1000;

/** A list in pieces that one statement can take. */
export function* slices<T>(list: readonly T[]): Generator<T[]> {
  for (let at = 0; at < list.length; at += SLICE) yield list.slice(at, at + SLICE);
}
