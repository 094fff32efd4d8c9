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
