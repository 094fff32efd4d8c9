/** Conditions: what they are, what they can test, and whether they hold. */
export { type Aspect, aspectOf } from './aspect';
export * from './audience';
export * from './catalogue';
export * from './check';
export * from './condition';
export * from './evaluate';
export { FACT_NAMES, type FactName, type Reader } from './facts';
export { fold, foldPushed } from './fold';
export { foldCase } from './folding';
export { isWithin, networkAddress, rangeOf } from './network';
export { withOneBefore } from './one-before';
export {
  type FactType,
  listOf,
  OPERATOR_NAMES,
  OPERATORS,
  type Operator,
  type OperatorName,
  type Takes,
  TODAY,
} from './operators';
export { FALSE, TRUE, type Truth, UNKNOWN } from './truth';
