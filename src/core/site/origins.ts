/** Where what somebody has comes from: from hand, or from what they bought, and until when. */
import type { GroupId, ItemId, LevelId, ProductId, RoleId } from '../ids';
import type { Day } from './day';
import { isEnrolledOn, type VisitorFacts } from './visitor';

/** One thing that somebody has on a day, by one way of having it. */
export interface Origin {
  readonly kind: 'level' | 'role' | 'group' | 'course';
  readonly id: LevelId | RoleId | GroupId | ItemId;
  /** The product, or the group, through which they have it; null for what was given by hand. */
  readonly through: ProductId | GroupId | null;
  /** The last day; null where it does not end. */
  readonly until: Day | null;
}

/** Everything that somebody has on a day, each as often as there are ways in which they have it. */
export function originsOf(facts: VisitorFacts, day: Day): readonly Origin[] {
  const { level, roles, groups, granted, enrolments } = facts;
  const now = granted.filter(({ on, until }) => on <= day && (until === null || until >= day));
  const given = (kind: Origin['kind'], list: readonly Origin['id'][]): readonly Origin[] =>
    list.map((id) => ({ kind, id, through: null, until: null }));
  return [
    ...given('level', level === null ? [] : [level]),
    ...given('role', roles ?? []),
    ...given('group', groups ?? []),
    ...now.flatMap(({ product: through, until, ...grants }): readonly Origin[] => [
      ...(grants.level === null ? [] : [{ kind: 'level' as const, id: grants.level, through, until }]),
      ...grants.roles.map((id) => ({ kind: 'role' as const, id, through, until })),
      ...grants.groups.map((id) => ({ kind: 'group' as const, id, through, until })),
    ]),
    ...(enrolments ?? [])
      .filter((one) => isEnrolledOn(one, day))
      .map(({ course, through = null, until }): Origin => ({ kind: 'course', id: course, through, until })),
  ];
}

/** What somebody has twice on a day: by hand, and by what they bought. */
export function doubledIn(facts: VisitorFacts, day: Day): readonly Origin[] {
  const all = originsOf(facts, day);
  const bought = new Set<string>((facts.purchases ?? []).map(({ product }) => product));
  return all.filter(
    (one) =>
      one.through === null &&
      all.some(
        (other) =>
          other.through !== null &&
          bought.has(other.through) &&
          other.kind === one.kind &&
          other.id === one.id,
      ),
  );
}
