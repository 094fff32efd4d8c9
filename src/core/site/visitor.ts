import type { GroupId, LevelId, RoleId } from '../ids';

/**
 * What is known of a visitor. `null` means *not known*, which is not the same as *none*: a guest may well be
 * in a group, but nobody knows, so a test on a guest's groups is unknown. A member's roles and groups are
 * always known, if only as empty lists. A member's level is `null` when they have none.
 */
export interface VisitorFacts {
  readonly signedIn: boolean;
  readonly roles: readonly RoleId[] | null;
  readonly groups: readonly GroupId[] | null;
  readonly level: LevelId | null;
}

/** Somebody who is not signed in: nothing else is known of them. */
export const guest: VisitorFacts = { signedIn: false, roles: null, groups: null, level: null };

/** A signed-in member with the given facts; what is left out is known to be none. */
export const member = (facts: Partial<Omit<VisitorFacts, 'signedIn'>> = {}): VisitorFacts => ({
  signedIn: true,
  roles: facts.roles ?? [],
  groups: facts.groups ?? [],
  level: facts.level ?? null,
});
