/** Enrolments as they are written: beginning one, ending one. */
import { addDays, type Day, type Enrolment, type ItemId, isEnrolledOn, isGoodOn } from '@/core';
import type { PersonRecord } from '@/store';

/**
 * With an enrolment that ends then: whoever is in it already stays in it from the day they were, and whose enrolment was to
 * come is in it from today.
 */
export function enrolledUntil(
  { enrolments }: Pick<PersonRecord, 'enrolments'>,
  course: ItemId,
  today: Day,
  until: Day | null,
): readonly Enrolment[] {
  const there = enrolments.find((one) => one.course === course && isEnrolledOn(one, today));
  const others = enrolments.filter((one) => one.course !== course);
  return there?.until === until ? enrolments : [...others, { course, on: there?.on ?? today, until }];
}

/** With an enrolment that ended the day before, under way or to come: it stays as a record. */
export const enrolmentEnded = (
  { enrolments }: Pick<PersonRecord, 'enrolments'>,
  course: ItemId,
  today: Day,
): readonly Enrolment[] =>
  enrolments.map((one) =>
    one.course === course && isGoodOn(one, today) ? { ...one, until: addDays(today, -1) } : one,
  );
