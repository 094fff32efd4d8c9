/**
 * Days of the proleptic Gregorian calendar as ISO 8601 texts ("2026-11-23"), which sort as they follow each other.
 * Arithmetic is on whole days; no time zone is involved once a day has been named.
 */

/** A calendar day, "YYYY-MM-DD". */
export type Day = string;

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
  const number = numberOf(day) + Math.floor(days);
  if (number <= FIRST) return '0000-01-01';
  return number >= LAST ? '9999-12-31' : dayNumbered(number);
}

// The days from 1 January 1970 to the ends of four-digit years.
const FIRST = -719_528;
const LAST = 2_932_896;

// Years begin in March here, so that the day that some of them have more is their last. Reckoned without a date, as it is
// asked for whatever anybody has that ends.
const DAYS_IN_400_YEARS = 146_097;
const TO_MARCH_0 = 719_468;

/** How many days there are from 1 January 1970 to a day. */
function numberOf(day: Day): number {
  const [year, month, date] = [Number(day.slice(0, 4)), Number(day.slice(5, 7)), Number(day.slice(8, 10))];
  const march = month > 2 ? month - 3 : month + 9;
  const y = month > 2 ? year : year - 1;
  const leaps = Math.floor(y / 4) - Math.floor(y / 100) + Math.floor(y / 400);
  return y * 365 + leaps + Math.floor((153 * march + 2) / 5) + date - 1 - TO_MARCH_0;
}

function dayNumbered(number: number): Day {
  const z = number + TO_MARCH_0;
  const era = Math.floor(z / DAYS_IN_400_YEARS);
  const inEra = z - era * DAYS_IN_400_YEARS;
  const years = Math.floor(
    (inEra - Math.floor(inEra / 1460) + Math.floor(inEra / 36_524) - Math.floor(inEra / 146_096)) / 365,
  );
  const inYear = inEra - (365 * years + Math.floor(years / 4) - Math.floor(years / 100));
  const march = Math.floor((5 * inYear + 2) / 153);
  const date = inYear - Math.floor((153 * march + 2) / 5) + 1;
  const month = march < 10 ? march + 3 : march - 9;
  const year = years + era * 400 + (month <= 2 ? 1 : 0);
  return `${year < 1000 ? String(year).padStart(4, '0') : year}-${month < 10 ? '0' : ''}${month}-${date < 10 ? '0' : ''}${date}`;
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
