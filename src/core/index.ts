/** What Trivet knows: conditions, gates, decisions and their explanation. No interface, no database, no clock. */
export * from './columns';
export * from './condition';
export * from './english';
export * from './gate';
export * from './ids';
export * from './keys';
export * from './policy';
export * from './same';
export * from './sentence';
export * from './sheet-cell';
export * from './site';
export * from './text';
export * from './unkept';
