/** Everything in core that turns values into English. */
export { type Plain, plain } from './compose';
export * from './decision';
export * from './expectation';
export * from './for-guests';
export * from './gate';
export { describeHandChange } from './hand-change';
export { imperativeOf } from './imperative';
export * from './selection';
export * from './use';
export * from './who';
export * from './witness';
export * from './words';
