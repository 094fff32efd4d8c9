/** A site as gates see it: its items, its addresses, its names, its visitors. */
export * from './address';
export * from './day';
export * from './desk-right';
export * from './facts-of';
export * from './field-value';
export * from './granted';
export * from './groups';
export * from './item';
export * from './kinds';
export * from './name-in-context';
export * from './outline';
export * from './request';
export * from './shared';
export * from './stand-in';
export * from './visitor';
export * from './vocabulary';
export * from './within';
