/** Limits on how often something is tried, counted in the database, so that they hold across processes and restarts. */
import type { Messages } from '@/core';
import { countAttempt } from '@/store';
import { messagesOf, type Trivet } from '../running';

export interface Limit {
  /** What is counted: "passphrase 10.0.0.1". */
  readonly key: string;
  readonly most: number;
  /** In milliseconds, from the first try on. */
  readonly within: number;
}

/** That a limit was passed: what to say, and in how many seconds to try again. */
export interface TooOften {
  readonly seconds: number;
  readonly message: string;
}

export const MINUTE = 60_000;

/** Counts one try against each of some limits; null while all of them are kept. */
export async function countTry(
  { db, state }: Pick<Trivet, 'db' | 'state'>,
  limits: readonly Limit[],
  now: Date,
): Promise<TooOften | null> {
  const passed = await Promise.all(
    limits.map(async ({ key, most, within }) => {
      const { count, windowEnds } = await countAttempt(db, key, now, within);
      return count > most ? [windowEnds.getTime() - now.getTime()] : [];
    }),
  );
  const waits = passed.flat();
  return waits.length === 0 ? null : tooOften(Math.max(...waits), messagesOf(state));
}

const tooOften = (milliseconds: number, { frame }: Messages): TooOften => ({
  seconds: Math.ceil(milliseconds / 1000),
  message: frame.tooOften(Math.max(1, Math.ceil(milliseconds / MINUTE))),
});
