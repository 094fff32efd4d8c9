/** Expectations: what must stay so, as values and as text. */
export { allows, type Claim, conditionsOfExpectation, type Expectation } from './expectation';
export { type Expected, expectationCompletionsAt, type ParsedExpectation, parseExpectation } from './parse';
export { printExpectation } from './print';
