/** What somebody may do at the desk. Services enforce it; screens ask it too, so as not to offer what would be refused. */
import type { ItemId } from '../ids';

export const DESK_RIGHTS = ['owner', 'gatekeeper', 'writer', 'reader', 'tutor'] as const;
export type DeskRight = (typeof DESK_RIGHTS)[number];

/** A right with its reach. */
export interface DeskGrant {
  readonly right: DeskRight;
  /** The item to which it is limited, with everything beneath it; null for the whole site. */
  readonly branch: ItemId | null;
}

/**
 * What services do: look at anything; change gates; change people and names; write content; see and mark the learners of
 * courses; and the rest, which only owners may: who may use the desk, settings, whole site files, the outbox with its codes.
 */
export type Permission = 'look' | 'gates' | 'people' | 'content' | 'learners' | 'everything';

const MAY: Readonly<Record<DeskRight, readonly Permission[]>> = {
  owner: ['look', 'gates', 'people', 'content', 'learners', 'everything'],
  gatekeeper: ['look', 'gates', 'people', 'learners'],
  writer: ['look', 'content'],
  reader: ['look'],
  tutor: ['learners'],
};

/** Whether a right reaches to something anywhere. People belong to the whole site, so a limited right does not reach them. */
export const permits = ({ right, branch }: DeskGrant, permission: Permission): boolean =>
  MAY[right].includes(permission) && !(permission === 'people' && branch !== null && right !== 'owner');
