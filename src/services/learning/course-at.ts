/** A course as its learners and tutors have it: what is published in it, in its order. */
import {
  type Activity,
  type ActivityType,
  activitiesOf,
  asId,
  type Course,
  type Day,
  type ItemId,
  isEnrolledOn,
  type Unit,
  unitsOf,
} from '@/core';
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

/** The activities of one type. */
export const activitiesAt = ({ activities }: CourseAt, type: ActivityType): readonly ItemId[] =>
  activities.filter(({ activity }) => activity === type).map(({ id }) => id);

/** Whether somebody learns in a course: they are or were enrolled, or have done something in it. */
export const learnsIn = (
  { course, ids }: CourseAt,
  { facts: { enrolments, completions } }: Pick<Person, 'facts'>,
): boolean =>
  enrolments?.some((one) => one.course === course.id) ||
  completions?.some(({ item }) => ids.has(item)) ||
  false;

/** An enrolment as tutors are told of it. */
export interface EnrolmentTold {
  readonly on: Day;
  readonly until: Day | null;
  /** The group through which it is, by name; null where it was by hand. */
  readonly through: string | null;
  /** Whether it is under way. */
  readonly runs: boolean;
}

/** How somebody is enrolled in a course on a day, or was; null for whoever never was. The one that lasts longest counts. */
export function enrolmentTold(
  { names }: SiteState,
  { facts }: Pick<Person, 'facts'>,
  course: ItemId,
  today: Day,
): EnrolmentTold | null {
  const [found] = (facts.enrolments ?? [])
    .filter((one) => one.course === course)
    .toSorted(
      (one, other) =>
        Number(isEnrolledOn(other, today)) - Number(isEnrolledOn(one, today)) ||
        (other.until ?? '9999').localeCompare(one.until ?? '9999'),
    );
  if (!found) return null;
  const group = names.groups.find(({ id }) => id === found.through);
  return {
    on: found.on,
    until: found.until,
    through: group?.name ?? null,
    runs: isEnrolledOn(found, today),
  };
}
