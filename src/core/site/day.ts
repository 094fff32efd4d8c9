/**
 * Days of the proleptic Gregorian calendar as ISO 8601 texts ("2026-11-23"), which sort as they follow each other.
 * Arithmetic is on whole days; no time zone is involved once a day has been named.
 */

/** A calendar day, "YYYY-MM-DD". */
export type Day = string;

const DAY_MS = 86_400_000;
const SHAPE = /^\d{4}-\d{2}-\d{2}$/;

/** Whether a text names a day that exists: "2026-02-30" does not. */
export const isDay = (text: unknown): text is Day => {
  if (typeof text !== 'string' || !SHAPE.test(text)) return false;
  const time = Date.parse(text);
  return !Number.isNaN(time) && new Date(time).toISOString().startsWith(text);
};

/** The day so many days later, or earlier for a negative number; at the ends of four-digit years it stops. */
export function addDays(day: Day, days: number): Day {
  const time = Date.parse(day) + days * DAY_MS;
  if (time < Date.parse('0000-01-01')) return '0000-01-01';
  return time > Date.parse('9999-12-31') ? '9999-12-31' : new Date(time).toISOString().slice(0, 10);
}

const MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
];

/** "1 December 2026". */
export const dayInWords = (day: Day): string =>
  `${Number(day.slice(8))} ${MONTHS[Number(day.slice(5, 7)) - 1]} ${Number(day.slice(0, 4))}`;
