/** What is kept: queries over PostgreSQL, one file per kind of thing. */
export * from './attempts';
export * from './boards';
export * from './database';
export * from './items';
export * from './names';
export * from './people';
export * from './people-changes';
export type { PersonRecord } from './person-record';
export * from './policies';
export * from './sessions';
export * from './settings';
export type { Hashes, PeopleChange, StandInRef } from './types';
export * from './walks';
