/** Everything in core that turns values into English. */
export * from './decision';
export * from './gate';
export * from './selection';
export { imperativeOf } from './test';
export * from './use';
export * from './who';
export * from './words';
