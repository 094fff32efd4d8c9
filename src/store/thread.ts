/** Threads of this process. Their files are plain JavaScript, because Node loads them itself. */
import { join } from 'node:path';
import { Worker, type WorkerOptions } from 'node:worker_threads';

/**
 * Starts a thread from a file of the project. It is made by reflection, because the bundler would make a module of whatever
 * stands in `new Worker(…)`.
 */
export const startThread = (file: string, options: WorkerOptions = {}): Worker =>
  // What this process is started with, to read TypeScript for one, is of no use there.
  Reflect.construct(Worker, [
    join(/* turbopackIgnore: true */ process.cwd(), file),
    { execArgv: [], ...options },
  ]);
