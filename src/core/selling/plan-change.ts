/** Changing from one plan to another: what is owed, or kept, to the cent. */
import { addDays, type Day } from '../site/day';
import type { Money } from './money';
import { addMonths, daysFrom } from './period';

export interface PlanChange {
  /** *Now* for a dearer plan; a cheaper one begins when what is paid for is over. */
  readonly kind: 'now' | 'at the end';
  /** What the rest of the old plan is worth. */
  readonly credit: number;
  /** What is paid now. */
  readonly owed: number;
  /** For how many days nothing is paid at the start. */
  readonly freeDays: number;
}

interface Plan extends Money {
  readonly months: number;
}

/** What a plan costs a month, to compare it with others. */
const monthly = ({ amount, months }: Plan): number => amount / months;

/**
 * What it takes to go from a plan, of which so much was paid for one day until another (both counted), to a plan that begins today. Days
 * that are begun are used; what is left is worth its share of the price, and nothing of it is lost: what is more than the new
 * plan costs is more days of it.
 */
export function planChange(
  old: Plan & { readonly paid: number; readonly from: Day; readonly until: Day },
  next: Plan,
  today: Day,
): PlanChange {
  const left = daysFrom(addDays(today, 1), old.until);
  if (monthly(next) < monthly(old)) return { kind: 'at the end', credit: 0, owed: 0, freeDays: left + 1 };
  const all = daysFrom(old.from, old.until);
  const credit = all === 0 ? 0 : Math.floor((old.paid * Math.min(left, all)) / all);
  if (credit < next.amount) return { kind: 'now', credit, owed: next.amount - credit, freeDays: 0 };
  const days = daysFrom(today, addDays(addMonths(today, next.months), -1));
  return { kind: 'now', credit, owed: 0, freeDays: Math.ceil((credit * days) / next.amount) };
}
