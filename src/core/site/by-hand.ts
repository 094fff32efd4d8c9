/** What is given to somebody by hand or taken from them, one thing at a time. */
import type { GroupId, ItemId, LevelId, RoleId } from '../ids';
import { addDays, type Day } from './day';
import { byHand, type Following, factsOf } from './facts-of';
import { type Enrolment, isEnrolledOn, isGoodOn, type VisitorFacts } from './visitor';

export type HandChange =
  | { readonly kind: 'join' | 'leave'; readonly group: GroupId }
  | { readonly kind: 'give' | 'take'; readonly role: RoleId }
  | { readonly kind: 'level'; readonly level: LevelId | null }
  /** `until` is the last day; null where it does not end. */
  | { readonly kind: 'enrol'; readonly course: ItemId; readonly until: Day | null }
  | { readonly kind: 'end enrolment'; readonly course: ItemId };

/** What somebody has by hand. */
export interface HeldByHand {
  readonly groups: readonly GroupId[];
  readonly roles: readonly RoleId[];
  readonly level: LevelId | null;
  readonly enrolments: readonly Enrolment[];
}

/** Somebody after one such change; the same where they are so already. */
export function changedByHand<Person extends HeldByHand>(
  person: Person,
  change: HandChange,
  today: Day,
): Person {
  switch (change.kind) {
    case 'join':
    case 'leave':
      return { ...person, groups: held(person.groups, change.group, change.kind === 'join') };
    case 'give':
    case 'take':
      return { ...person, roles: held(person.roles, change.role, change.kind === 'give') };
    case 'level':
      return { ...person, level: change.level };
    case 'enrol':
      return { ...person, enrolments: enrolledUntil(person, change.course, today, change.until) };
    case 'end enrolment':
      return { ...person, enrolments: enrolmentEnded(person, change.course, today) };
    default:
      return change satisfies never;
  }
}

/** A member's facts after one such change: what follows from it as well, while what they have otherwise stays. */
export function factsChangedByHand(
  facts: VisitorFacts,
  change: HandChange,
  following: Following,
  today: Day,
): VisitorFacts {
  const own = byHand(facts.enrolments);
  const groups = facts.groups ?? [];
  const { enrolments, ...given } = changedByHand(
    { groups, roles: facts.roles ?? [], level: facts.level, enrolments: own },
    change,
    today,
  );
  const derived = (facts.enrolments ?? []).filter(({ through }) => through !== undefined);
  return {
    ...facts,
    ...given,
    enrolments: [...enrolments, ...derivedAfter(derived, facts, change, following, today)],
  };
}

/** The enrolments that follow from something, after a change: a group that one is in through a purchase as well goes on bringing its own. */
function derivedAfter(
  derived: readonly Enrolment[],
  { groups, purchases }: VisitorFacts,
  change: HandChange,
  following: Following,
  today: Day,
): readonly Enrolment[] {
  if (change.kind !== 'join' && change.kind !== 'leave') return derived;
  const { group } = change;
  if (groups?.includes(group) === (change.kind === 'join')) return derived;
  const held =
    change.kind === 'join'
      ? { groups: [group], groupsSince: { [group]: today } }
      : { groups: [], groupsSince: {}, purchases };
  const through = (factsOf(held, following).enrolments ?? []).filter((one) => one.through === group);
  const others = change.kind === 'join' ? derived : derived.filter((one) => one.through !== group);
  return [...others, ...through];
}

const held = <T extends string>(list: readonly T[], one: T, has: boolean): readonly T[] =>
  list.includes(one) === has ? list : has ? [...list, one] : list.filter((other) => other !== one);

/**
 * With an enrolment that ends then: whoever is in it already stays in it from the day they were, and whose enrolment was to
 * come is in it from today.
 */
function enrolledUntil(
  { enrolments }: Pick<HeldByHand, 'enrolments'>,
  course: ItemId,
  today: Day,
  until: Day | null,
): readonly Enrolment[] {
  const there = enrolments.find((one) => one.course === course && isEnrolledOn(one, today));
  const others = enrolments.filter((one) => one.course !== course);
  return there?.until === until ? enrolments : [...others, { course, on: there?.on ?? today, until }];
}

/** With an enrolment that ended the day before, under way or to come: it stays as a record. */
const enrolmentEnded = (
  { enrolments }: Pick<HeldByHand, 'enrolments'>,
  course: ItemId,
  today: Day,
): readonly Enrolment[] =>
  enrolments.map((one) =>
    one.course === course && isGoodOn(one, today) ? { ...one, until: addDays(today, -1) } : one,
  );
