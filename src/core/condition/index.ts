/** Conditions: what they are, what they can test, and whether they hold. */
export * from './catalogue';
export * from './condition';
export * from './evaluate';
export { FALSE, TRUE, type Truth, UNKNOWN } from './truth';
