/** The till that the running site sells with, if there is one. Next bundles routes apart, so it is kept on `globalThis`. */
import { environment } from '../running';
import type { Till } from './till';
import { tillAt } from './till-client';

const holder = globalThis as { __trivetTill?: Till | null };

/** The till of this process; null where the site has none. */
export function runningTill(): Till | null {
  if (holder.__trivetTill === undefined) {
    const { till } = environment();
    holder.__trivetTill = till === null ? null : tillAt(till);
  }
  return holder.__trivetTill;
}

/** Sells with another till: for tests. */
export function sellWith(till: Till | null): void {
  holder.__trivetTill = till;
}
