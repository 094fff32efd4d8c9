import { onceFor } from '../once';

/**
 * How a language writes numbers, by its tag (BCP 47). Made when the first is written: a browser takes longer over it than over
 * everything else that the desk begins with.
 */
export const numbersIn = onceFor((tag: string) => new Intl.NumberFormat(tag, { maximumFractionDigits: 20 }));
