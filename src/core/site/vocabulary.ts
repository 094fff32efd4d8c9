import type { GroupId, LevelId, RoleId } from '../ids';

interface Named<T> {
  readonly id: T;
  readonly name: string;
}

/** A role of the site. */
export type Role = Named<RoleId>;

/** A group of the site. A private one is never named in a reason that visitors read. */
export interface Group extends Named<GroupId> {
  readonly private: boolean;
}

/** A membership level. Its place in {@link Vocabulary.levels} is its rank. */
export type Level = Named<LevelId>;

/** The site's own names, which extend the catalogue. Levels stand in rank order, lowest first. */
export interface Vocabulary {
  readonly roles: readonly Role[];
  readonly groups: readonly Group[];
  readonly levels: readonly Level[];
}
