/** Many people at once: conditions over bitsets. */
export * from '../bitset';
export * from './columns';
