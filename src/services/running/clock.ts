/** The moment by the site's own clock. */
import { type Moment, momentIn, type RequestFacts, requestAt } from '@/core';
import type { SiteState } from './site-state';

let known: { readonly timeZone: string; readonly minute: number; readonly moment: Moment } | null = null;

/** The moment in the site's time zone, worked out once a minute. */
export function momentAt({ settings: { timeZone } }: SiteState, now: Date): Moment {
  const minute = Math.floor(now.getTime() / 60_000);
  if (known?.minute !== minute || known.timeZone !== timeZone)
    known = { timeZone, minute, moment: momentIn(timeZone, now) };
  return known.moment;
}

// Next bundles routes apart, so it is kept on `globalThis`.
const holder = globalThis as { __trivetAhead?: number };

/** Lets the site's clock be so many seconds ahead: in a demo it can be moved on. */
export function setClockAhead(seconds: number): void {
  holder.__trivetAhead = seconds;
  read = { at: Number.NEGATIVE_INFINITY, now: new Date(0) };
}

/** The moment by the site's clock. */
const moment = (): Date => new Date(Date.now() + (holder.__trivetAhead ?? 0) * 1000);

let read = { at: Number.NEGATIVE_INFINITY, now: new Date(0) };

/** How long a reading of the clock is good for, in milliseconds. */
const TICK_MS = 50;

/** The time, to within a twentieth of a second: what is asked for in every request is not read from the clock each time. */
export function theTime(): Date {
  const at = performance.now();
  if (at - read.at > TICK_MS) read = { at, now: moment() };
  return read.now;
}

/** A request of which only the moment is known: what counts and checks at the desk are made for. */
export const plainRequest = (state: SiteState, now: Date): RequestFacts => requestAt(momentAt(state, now));
