/** Work that would take the whole machine, one after the other: hashing what people type is slow on purpose. */

import { isLocked } from '@/store';

/** There are too many waiting already. Nothing was done. */
export class Busy extends Error {
  constructor() {
    super('Too many are waiting for the same.');
  }
}

/** Whether something was not begun because too many are at it, here or on other processes. */
export const isBusy = (error: unknown): boolean => error instanceof Busy || isLocked(error);

/** A lane lets so many do something at once and so many wait; whoever comes on top of that is told so. */
export function lane(width: number, mostWaiting: number): <T>(work: () => Promise<T>) => Promise<T> {
  let going = 0;
  const waiting: (() => void)[] = [];
  return async (work) => {
    if (going >= width) {
      if (waiting.length >= mostWaiting) throw new Busy();
      await new Promise<void>((resolve) => waiting.push(resolve));
    } else going += 1;
    try {
      return await work();
    } finally {
      // Whoever waits longest takes the place over.
      const next = waiting.shift();
      if (next) next();
      else going -= 1;
    }
  };
}
