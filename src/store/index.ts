/** What is kept: queries over PostgreSQL, one file per kind of thing. */
export * from './attempts';
export * from './boards';
export * from './database';
export * from './items';
export * from './people';
export * from './policies';
export * from './sessions';
export type { StandInRef } from './types';
export * from './walks';
