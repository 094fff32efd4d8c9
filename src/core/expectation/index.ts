/** Expectations: what must stay so, as values and as text. */
export { allows, type Claim, conditionsOfExpectation, type Expectation } from './expectation';
export { type Expected, expectationCompletionsAt, parseExpectation } from './parse';
export { meantBy, pinned, whomTheyCanBe } from './pinned';
export { printExpectation } from './print';
