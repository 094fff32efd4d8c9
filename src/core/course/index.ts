/** Courses: what learning is made of. */
export * from './completing';
export * from './pacing';
