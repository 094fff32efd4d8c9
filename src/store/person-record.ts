import type { GroupId, LevelId, PersonId, RoleId } from '../core/ids';
import type { Completion, Enrolment, FieldValue, Purchase } from '../core/site/visitor';

/** A person with everything that is kept of them, apart from their password. */
export interface PersonRecord {
  readonly id: PersonId;
  /** In lower case. */
  readonly email: string;
  readonly name: string;
  /** May use the desk. */
  readonly desk: boolean;
  readonly level: LevelId | null;
  readonly roles: readonly RoleId[];
  readonly groups: readonly GroupId[];
  readonly profile: Readonly<Record<string, FieldValue>>;
  readonly joined: string | null;
  readonly purchases: readonly Purchase[];
  readonly enrolments: readonly Enrolment[];
  readonly completions: readonly Completion[];
}
