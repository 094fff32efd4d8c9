/** Courses: what learning is made of. */

export * from './answering';
export * from './attempt';
export * from './completing';
export * from './drawing';
export * from './hand-in';
export * from './pacing';
export * from './package';
export * from './played';
export * from './progress';
export * from './quiz';
export * from './review';
