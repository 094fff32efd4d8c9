/**
 * fast-check as mutants need it: a property need only fail. A mutant is seen in a hundred cases or hardly ever, and which
 * is the smallest case that shows it takes long and is read by nobody.
 */
import fc from '../node_modules/fast-check/lib/fast-check.js';

const MOST_CASES = 100;

const assert: typeof fc.assert = ((property, { numRuns = MOST_CASES, ...parameters } = {}) =>
  fc.assert(property, {
    ...parameters,
    numRuns: Math.min(numRuns, MOST_CASES),
    endOnFailure: true,
  })) as typeof fc.assert;

export default { ...fc, assert };
