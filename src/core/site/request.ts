/**
 * What is known of one request. The time is part of it, so that deciding needs no clock. Most of the rest is what the
 * visitor's own browser says, which anybody can make up; the catalogue marks those facts.
 */
import type { Day } from './day';

export const WEEKDAYS = [
  'Monday',
  'Tuesday',
  'Wednesday',
  'Thursday',
  'Friday',
  'Saturday',
  'Sunday',
] as const;
export type Weekday = (typeof WEEKDAYS)[number];

export const DEVICES = ['phone', 'tablet', 'computer'] as const;
export type Device = (typeof DEVICES)[number];

/** Browser families by the engine they are built on. */
export const ENGINES = ['blink', 'gecko', 'webkit'] as const;
export type Engine = (typeof ENGINES)[number];

/** A moment in the site's own time zone. */
export interface Moment {
  readonly today: Day;
  /** Minutes since midnight, 0 to 1439. */
  readonly minute: number;
  readonly weekday: Weekday;
}

/** The facts of a request; `null` where nothing is known. */
export interface RequestFacts extends Moment {
  /** The address's query; the first value of each name. */
  readonly parameters: Readonly<Record<string, string>>;
  /** The host of the page that led here, in lower case. */
  readonly referrer: string | null;
  readonly device: Device | null;
  readonly browser: Engine | null;
  /** The network address as the server saw it, version 4 or 6. */
  readonly network: string | null;
  /** BCP 47 tags, the one liked best first. */
  readonly languages: readonly string[] | null;
}

/** A request of which only the moment is known. */
export const requestAt = (moment: Moment): RequestFacts => ({
  ...moment,
  parameters: {},
  referrer: null,
  device: null,
  browser: null,
  network: null,
  languages: null,
});

/** The moment in a time zone (IANA name). Throws a RangeError for a zone that does not exist. */
export function momentIn(timeZone: string, at: Date): Moment {
  const parts = new Intl.DateTimeFormat('en-GB', {
    timeZone,
    calendar: 'gregory',
    numberingSystem: 'latn',
    hourCycle: 'h23',
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
    hour: '2-digit',
    minute: '2-digit',
    weekday: 'long',
  }).formatToParts(at);
  const part = (type: Intl.DateTimeFormatPartTypes) => parts.find((one) => one.type === type)?.value ?? '';
  return {
    today: `${part('year').padStart(4, '0')}-${part('month')}-${part('day')}`,
    minute: Number(part('hour')) * 60 + Number(part('minute')),
    weekday: part('weekday') as Weekday,
  };
}
