/** Limits on how often something is tried, counted in the database, so that they hold across processes and restarts. */
import { countAttempt } from '@/store';
import type { Trivet } from '../running';

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
  { db }: Pick<Trivet, 'db'>,
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
  return waits.length === 0 ? null : tooOften(Math.max(...waits));
}

function tooOften(milliseconds: number): TooOften {
  const minutes = Math.max(1, Math.ceil(milliseconds / MINUTE));
  const wait = minutes === 1 ? 'a minute' : `${minutes} minutes`;
  return {
    seconds: Math.ceil(milliseconds / 1000),
    message: `That was tried too often. Wait ${wait} and try again.`,
  };
}
