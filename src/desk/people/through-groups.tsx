'use client';
/** The courses that somebody is in through a group, said where their groups are chosen. */
import { dayInWords, factsOf, type VisitorFacts } from '@/core';
import { followingIn, useDesk } from '../context';

interface ThroughGroupsProps {
  readonly groups: VisitorFacts['groups'];
  /** Since when they are in them, as far as that is known. */
  readonly since: Readonly<Record<string, string>>;
}

export function ThroughGroups({ groups, since }: ThroughGroupsProps) {
  const { data } = useDesk();
  const { courses, groups: all } = data.names;
  const { enrolments } = factsOf({ groups, groupsSince: since }, followingIn(data));
  return (enrolments ?? []).map(({ course, through, on, until }) => (
    <p key={`${through} ${course}`} className="note">
      In {courses.find(({ id }) => id === course)?.name} through {all.find(({ id }) => id === through)?.name},
      since {dayInWords(on)}
      {until !== null && `, until ${dayInWords(until)}`}.
    </p>
  ));
}
