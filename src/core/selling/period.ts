/** The periods that subscriptions run in: whole months, counted from the day they began. */
import { addDays, type Day } from '../site/day';

/** "2026-01-31" and one month is "2026-02-28": the same day of the month, or its last. */
export function addMonths(day: Day, months: number): Day {
  const [year, month] = [Number(day.slice(0, 4)), Number(day.slice(5, 7))];
  const at = year * 12 + month - 1 + months;
  const [newYear, newMonth] = [Math.floor(at / 12), (at % 12) + 1];
  if (newYear > 9999) return '9999-12-31';
  const last = new Date(Date.UTC(newYear, newMonth, 0)).getUTCDate();
  const date = Math.min(Number(day.slice(8)), last);
  return `${String(newYear).padStart(4, '0')}-${String(newMonth).padStart(2, '0')}-${String(date).padStart(2, '0')}`;
}

/** The last day of a subscription's so many first periods, counted from the day it began. */
export const endOfPeriods = (began: Day, months: number, periods: number): Day =>
  addDays(addMonths(began, months * periods), -1);

/** "a month", "3 months", "a year". */
export function periodInWords(months: number): string {
  if (months === 1) return 'a month';
  if (months === 12) return 'a year';
  return months % 12 === 0 ? `every ${months / 12} years` : `every ${months} months`;
}

/** How many days there are from one to another, both counted; none where the second is before the first. */
export const daysFrom = (from: Day, until: Day): number =>
  Math.max(0, Math.round((Date.parse(until) - Date.parse(from)) / 86_400_000) + 1);
