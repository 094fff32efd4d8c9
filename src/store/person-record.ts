import type { GroupId, LevelId, PersonId, RoleId } from '../core/ids';
import type { Day } from '../core/site/day';
import type { Completion, Enrolment, FieldValue, Purchase } from '../core/site/visitor';
import type { DeskGrant } from './types';

/** A person with everything that is kept of them, apart from their password. */
export interface PersonRecord {
  readonly id: PersonId;
  /** In lower case. */
  readonly email: string;
  readonly name: string;
  /** What they may do at the desk; null for nothing. */
  readonly desk: DeskGrant | null;
  readonly level: LevelId | null;
  readonly roles: readonly RoleId[];
  readonly groups: readonly GroupId[];
  /** The day on which they came into a group, by group; none for those they were in before that was kept. */
  readonly groupsSince: Readonly<Record<string, Day>>;
  readonly profile: Readonly<Record<string, FieldValue>>;
  readonly joined: string | null;
  readonly purchases: readonly Purchase[];
  readonly enrolments: readonly Enrolment[];
  readonly completions: readonly Completion[];
}

/** What is kept of a person in lists that mean the same in any order. */
type Lists = Pick<PersonRecord, 'roles' | 'groups' | 'enrolments' | 'completions'>;

/**
 * The lists of a record in an order of their own, which is the same whoever wrote them, and however they are read: two
 * records of one person are equal when they say the same.
 */
export const inOrder = ({ roles, groups, enrolments, completions }: Lists): Lists => ({
  roles: sorted(roles, (one) => one),
  groups: sorted(groups, (one) => one),
  enrolments: sorted(enrolments, ({ on, course }) => `${on} ${course}`),
  completions: sorted(completions, ({ on, item }) => `${on} ${item}`),
});

// Most people have none or one of anything, and there are very many.
const sorted = <T>(list: readonly T[], by: (one: T) => string): readonly T[] =>
  list.length < 2 ? list : list.toSorted((a, b) => byLetters(by(a), by(b)));

const byLetters = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);
