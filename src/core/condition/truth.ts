/**
 * Three truth values with Kleene's strong connectives (S. C. Kleene, Introduction to Metamathematics, 1952, §64).
 * Ordered false < unknown < true, so that *and* is the minimum, *or* the maximum and *not* the negation.
 * A gate opens on TRUE alone, which is how missing data never opens one.
 */
export type Truth = -1 | 0 | 1;

export const FALSE: Truth = -1;
export const UNKNOWN: Truth = 0;
export const TRUE: Truth = 1;

/** Kleene's *and* over any number of values; of none it is true. */
export const and = (values: readonly Truth[]): Truth => Math.min(TRUE, ...values) as Truth;

/** Kleene's *or* over any number of values; of none it is false. */
export const or = (values: readonly Truth[]): Truth => Math.max(FALSE, ...values) as Truth;

/** Kleene's *not*: swaps true and false and leaves unknown as it is. */
export const not = (value: Truth): Truth => (value === UNKNOWN ? UNKNOWN : (-value as Truth));

/** The truth value of a known yes or no. */
export const known = (value: boolean): Truth => (value ? TRUE : FALSE);
