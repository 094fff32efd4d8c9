/** Since when people are in their groups: noted with every change that brings somebody into one. */
import type { Day } from '@/core';
import type { PeopleChange, PersonRecord } from '@/store';

/** The same change, with a day for every group that somebody comes into, and none for those that they leave. */
export const withSince = ({ before, after }: PeopleChange, today: Day): PeopleChange => ({
  before,
  after: after && { ...after, groupsSince: sinceIn(before, after, today) },
});

function sinceIn(
  before: PersonRecord | null,
  { groups, groupsSince }: PersonRecord,
  today: Day,
): PersonRecord['groupsSince'] {
  const stayed = new Set(before?.groups);
  return Object.fromEntries(
    groups.flatMap((group) => {
      const since = groupsSince[group] ?? (stayed.has(group) ? undefined : today);
      return since === undefined ? [] : [[group, since]];
    }),
  );
}
