/** How one comes into a course, as it is written: shape, limits, and whether the groups are there. */
import { z } from 'zod';
import { type Enrolling, enrollingByHand, type SiteNames } from '@/core';
import { dayForm, newId } from '../forms';

const MOST_DAYS = 3660;
const MOST_GROUPS = 100;

export const enrollingShape = z.strictObject({
  open: z.boolean().default(false),
  days: z
    .int('Write whole days.')
    .min(1, 'An enrolment lasts at least a day.')
    .max(MOST_DAYS, `An enrolment lasts at most ${MOST_DAYS} days, or does not end.`)
    .nullable()
    .default(null),
  groups: z
    .array(z.strictObject({ group: newId, since: dayForm }))
    .max(MOST_GROUPS, `At most ${MOST_GROUPS} groups are enrolled in a course.`)
    .default([]),
});

/** What comes from outside is read strictly; ids in it are ids from here on. */
export const enrollingOf = (read: z.output<typeof enrollingShape>): Enrolling => read as unknown as Enrolling;

/** How one comes into a course, as it is edited. */
export const editedEnrolling = ({
  groups,
  ...rest
}: Enrolling = enrollingByHand): z.output<typeof enrollingShape> => ({
  ...rest,
  groups: groups.map((one) => ({ ...one })),
});

/** What is wrong with how one comes into a course, or null. */
export function enrollingProblem({ groups }: Enrolling, names: Pick<SiteNames, 'groups'>): string | null {
  const known = new Set(names.groups.map(({ id }) => id));
  const seen = new Set<string>();
  for (const { group } of groups) {
    if (!known.has(group)) return 'One of the groups is no longer there. Take it off.';
    if (seen.has(group)) return 'A group is enrolled once. Take one of them off.';
    seen.add(group);
  }
  return null;
}
