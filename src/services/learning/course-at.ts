/** A course as its learners and tutors have it: what is published in it, in its order. */
import { type Activity, activitiesOf, asId, type Course, type ItemId, type Unit, unitsOf } from '@/core';
import type { Person, SiteState } from '../running';

export interface CourseAt {
  readonly course: Course;
  readonly units: readonly { readonly unit: Unit; readonly activities: readonly Activity[] }[];
  readonly activities: readonly Activity[];
  /** The course, its units and its activities. */
  readonly ids: ReadonlySet<ItemId>;
}

/** A course with what there is to do in it; null where there is none. */
export function courseAt({ outline }: SiteState, id: string): CourseAt | null {
  const course = outline.items.get(asId<ItemId>(id));
  if (course?.kind !== 'course') return null;
  const units = unitsOf(outline, course.id)
    .filter(({ published }) => published)
    .map((unit) => ({
      unit,
      activities: activitiesOf(outline, unit.id).filter(({ published }) => published),
    }));
  const activities = units.flatMap((one) => one.activities);
  const ids = new Set([course.id, ...units.map(({ unit }) => unit.id), ...activities.map((one) => one.id)]);
  return { course, units, activities, ids };
}

/** Whether somebody learns in a course: they are or were enrolled, or have done something in it. */
export const learnsIn = (
  { course, ids }: CourseAt,
  { enrolments, completions }: Pick<Person, 'enrolments' | 'completions'>,
): boolean =>
  enrolments.some((one) => one.course === course.id) || completions.some(({ item }) => ids.has(item));
