/** A thread that answers one question after the other. It starts when it is first asked, and keeps no process from ending. */
import type { Worker } from 'node:worker_threads';
import { startThread } from './thread';

interface Waiting<A> {
  readonly resolve: (answer: A) => void;
  readonly reject: (error: Error) => void;
}

export interface AskedThread<Q, A> {
  (question: Q): Promise<A>;
  /** Ends the thread; another question starts it again. */
  end(): void;
}

/**
 * Asks a thread of a file of the project; whoever waits is told if it ends, and the next question starts another. One that is
 * longer about an answer than it may, in milliseconds, is ended.
 */
export function askedThread<Q, A>(file: string, longest?: number): AskedThread<Q, A> {
  let thread: Worker | null = null;
  // Answers come in the order in which they were asked for.
  const waiting: Waiting<A>[] = [];
  let bound: NodeJS.Timeout | undefined;
  const watch = (worker: Worker) => {
    clearTimeout(bound);
    if (longest !== undefined && waiting.length > 0)
      bound = setTimeout(() => void worker.terminate(), longest);
  };
  const start = (): Worker => {
    const worker = startThread(file);
    const end = (error: Error) => {
      if (thread !== worker) return;
      thread = null;
      clearTimeout(bound);
      for (const one of waiting.splice(0)) one.reject(error);
    };
    worker.on('message', (answer: A) => {
      waiting.shift()?.resolve(answer);
      watch(worker);
      // A thread that nobody waits for doesn't keep the process from ending.
      if (waiting.length === 0) worker.unref();
    });
    worker.on('error', end);
    worker.on('exit', () => end(new Error('The thread has ended.')));
    return worker;
  };
  const ask = (question: Q): Promise<A> =>
    new Promise((resolve, reject) => {
      thread ??= start();
      waiting.push({ resolve, reject });
      if (waiting.length === 1) watch(thread);
      thread.ref();
      thread.postMessage(question);
    });
  return Object.assign(ask, { end: () => void thread?.terminate() });
}
