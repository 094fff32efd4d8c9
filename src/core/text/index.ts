/** The text form of conditions: printing, reading, completing. */
export { type Completions, completionsAt } from './complete';
export { nearest } from './names';
export { type ConditionError, type Expectation, type ParsedCondition, parseCondition } from './parse';
export { type Calling, printCondition } from './print';
export * from './regions';
