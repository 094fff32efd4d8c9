/**
 * Days of the proleptic Gregorian calendar as ISO 8601 texts ("2026-11-23"), which sort as they follow each other.
 * Arithmetic is on whole days; no time zone is involved once a day has been named.
 */

/** A calendar day, "YYYY-MM-DD". */
export type Day = string;

const DAY_MS = 86_400_000;

/** Whether a text names a day that exists: "2026-02-30" does not. Reckoned without a date, as it is asked of everybody. */
export function isDay(text: unknown): text is Day {
  if (typeof text !== 'string' || text.length !== 10) return false;
  let number = 0;
  for (let at = 0; at < 10; at++) {
    const digit = text.charCodeAt(at) - 48;
    if (at === 4 || at === 7) {
      if (digit !== -3) return false;
    } else if (digit < 0 || digit > 9) return false;
    else number = number * 10 + digit;
  }
  const [year, month, day] = [Math.floor(number / 10_000), Math.floor(number / 100) % 100, number % 100];
  return month >= 1 && month <= 12 && day >= 1 && day <= daysIn(year, month);
}

function daysIn(year: number, month: number): number {
  if (month !== 2) return month === 4 || month === 6 || month === 9 || month === 11 ? 30 : 31;
  return year % 4 === 0 && (year % 100 !== 0 || year % 400 === 0) ? 29 : 28;
}

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
