/** Everything in core that turns values into English. */
export * from './decision';
export * from './gate';
export * from './who';
export * from './words';
