/** What is known of a member: what they were given by hand, joined with what follows from it. */
import type { GroupId, ItemId } from '../ids';
import { addDays, type Day } from './day';
import type { ByProduct, Granted } from './granted';
import { type Enrolment, guest, nothingHeld, type Purchase, type VisitorFacts } from './visitor';

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
const earlier = (one: Day | null, other: Day | null): Day | null =>
  one === null ? other : other === null || one < other ? one : other;

/** What was given to somebody by hand, and what they bought. */
export interface Held extends Partial<Omit<VisitorFacts, 'signedIn' | 'groups' | 'granted'>> {
  readonly groups: readonly GroupId[] | null;
  /** When they came into a group, by group; where nothing is kept of that, they were in it before anybody asked. */
  readonly groupsSince: Readonly<Record<string, Day>>;
}

/** What follows from what. */
export interface Following {
  readonly byGroup: ByGroup;
  readonly byProduct: ByProduct;
}

/**
 * The facts of a member: the one place where what was given by hand and what follows from it are joined. Nothing that
 * follows is ever written to them, so that whoever loses what it follows from loses exactly that. It says where it comes
 * from, and from when until when it holds, so that facts made once are right at any moment.
 */
export function factsOf(person: Held, { byGroup, byProduct }: Following): VisitorFacts {
  const granted: Granted[] = [];
  const derived: Enrolment[] = [];
  const enrolThrough = (group: GroupId, from: Day | null, until: Day | null) => {
    for (const { course, since, days } of byGroup.get(group) ?? []) {
      const on = later(from ?? since, since);
      const ends = earlier(endOfEnrolment({ days }, on), until);
      if (ends === null || ends >= on) derived.push({ course, on, until: ends, through: group });
    }
  };
  for (const group of person.groups ?? []) enrolThrough(group, person.groupsSince[group] ?? null, null);
  for (const { product, on, until, state } of person.purchases ?? noPurchases) {
    const grants = state === 'paid' && (until === null || until >= on) ? byProduct.get(product) : undefined;
    if (grants === undefined) continue;
    const { level, roles, groups, enrolments } = grants;
    if (level !== null || roles.length > 0 || groups.length > 0)
      granted.push({ product, on, until, level, roles, groups });
    for (const { course, days } of enrolments)
      derived.push({ course, on, until: earlier(endOfEnrolment({ days }, on), until), through: product });
    for (const group of groups) enrolThrough(group, on, until);
  }
  // Field by field, so that all facts are of one shape: they are made of everybody, and read in every decision.
  const { enrolments } = person;
  return {
    signedIn: true,
    id: person.id ?? null,
    email: person.email ?? null,
    roles: orNothing(person.roles, nothingHeld.roles),
    groups: person.groups,
    level: person.level ?? null,
    profile: orNothing(person.profile, nothingHeld.profile),
    purchases: orNothing(person.purchases, nothingHeld.purchases),
    granted,
    joined: person.joined ?? null,
    enrolments:
      derived.length === 0
        ? orNothing(enrolments, nothingHeld.enrolments)
        : [...(enrolments ?? []), ...derived],
    completions: orNothing(person.completions, nothingHeld.completions),
    passphrases: person.passphrases ?? guest.passphrases,
    desk: person.desk ?? null,
    share: person.share ?? null,
  };
}

/** What is not given at all is known to be none; what is given as null is not known. */
const orNothing = <T>(given: T | undefined, nothing: T): T => (given === undefined ? nothing : given);

const noPurchases: readonly Purchase[] = [];
