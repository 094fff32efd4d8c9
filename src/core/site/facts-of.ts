/** What is known of a member: what they were given by hand, joined with what follows from it. */
import type { GroupId, ItemId } from '../ids';
import { addDays, type Day } from './day';
import { type Enrolment, member, type VisitorFacts } from './visitor';

/** How one comes into a course without being enrolled by hand, and for how long. */
export interface Enrolling {
  /** Whether whoever may open its page enrols as they like. */
  readonly open: boolean;
  /** For how many days somebody is enrolled where no other end is set; null for as long as they like. */
  readonly days: number | null;
  /** Groups of which everybody is enrolled for as long as they are in it, and from when on that holds. */
  readonly groups: readonly GroupEnrolment[];
}

export interface GroupEnrolment {
  readonly group: GroupId;
  readonly since: Day;
}

/** A course in which nobody is without being enrolled by hand. */
export const enrollingByHand: Enrolling = { open: false, days: null, groups: [] };

/** The last day of an enrolment that begins on a day; null where it does not end. */
export const endOfEnrolment = ({ days }: Pick<Enrolling, 'days'>, on: Day): Day | null =>
  days === null ? null : addDays(on, days - 1);

/** What being in a group brings, by group. */
export type ByGroup = ReadonlyMap<
  GroupId,
  readonly { readonly course: ItemId; readonly since: Day; readonly days: number | null }[]
>;

/** What courses say of groups, by group. */
export function enrolledByGroup(courses: Iterable<readonly [course: ItemId, enrolling: Enrolling]>): ByGroup {
  const found = new Map<GroupId, { course: ItemId; since: Day; days: number | null }[]>();
  for (const [course, { groups, days }] of courses)
    for (const { group, since } of groups) {
      const list = found.get(group) ?? [];
      list.push({ course, since, days });
      found.set(group, list);
    }
  return found;
}

/** Those enrolments that were made by hand. */
export const byHand = (enrolments: readonly Enrolment[] | null): readonly Enrolment[] =>
  (enrolments ?? []).filter(({ through }) => through === undefined);

const later = (one: Day, other: Day): Day => (one > other ? one : other);

/** What was given to somebody by hand. */
export interface Held extends Partial<Omit<VisitorFacts, 'signedIn' | 'groups'>> {
  readonly groups: readonly GroupId[] | null;
  /** When they came into a group, by group; where nothing is kept of that, they were in it before anybody asked. */
  readonly groupsSince: Readonly<Record<string, Day>>;
}

/**
 * The facts of a member: the one place where what was given by hand and what follows from it are joined. Nothing that
 * follows is ever written to them, so that whoever loses what it follows from loses exactly that. It says where it comes
 * from, and from when until when it holds, so that facts made once are right at any moment.
 */
export function factsOf({ groupsSince, ...held }: Held, byGroup: ByGroup): VisitorFacts {
  const facts = member(held);
  const through = (held.groups ?? []).flatMap((group) =>
    (byGroup.get(group) ?? []).map(({ course, since, days }): Enrolment => {
      const on = later(groupsSince[group] ?? since, since);
      return { course, on, until: endOfEnrolment({ days }, on), through: group };
    }),
  );
  return through.length === 0 ? facts : { ...facts, enrolments: [...(facts.enrolments ?? []), ...through] };
}
