/**
 * Who may do what at the desk. A service takes an {@link Administrator} and says with {@link requirePermission} what it needs, before it
 * does anything; what screens show or hide has no part in it.
 */
import { below, type DeskGrant, type ItemId, type Outline, type Permission, permits } from '@/core';
import { type Person, recordOf } from './person';
import type { Visitor } from './visitor';

declare const brand: unique symbol;

/** A person who has been found to have a right to use the desk. Desk services take nothing less. */
export interface Administrator extends Person {
  readonly session: string;
  readonly desk: DeskGrant;
  readonly [brand]: 'administrator';
}

/** The visitor as an administrator, or null if they may not use the desk. */
export const administratorOf = ({ person, session }: Visitor): Administrator | null =>
  person?.desk && session !== null
    ? ({ ...recordOf(person), facts: person.facts, session } as Administrator)
    : null;

const NEEDED: Readonly<Record<Permission, string>> = {
  look: 'Looking around the desk needs a right to use it.',
  gates: 'Gates are changed by owners and gatekeepers.',
  people: 'People and names are changed by owners, and by gatekeepers of the whole site.',
  content: 'Pages, posts, menus and files are changed by owners and writers.',
  learners: 'Learners are seen and marked by owners, gatekeepers and tutors.',
  everything: 'Only an owner may do this.',
};

/** Somebody asked for what their right does not reach to. Nothing was done. */
export class NotAllowed extends Error {}

/** Throws {@link NotAllowed} unless an administrator may do this. */
export function requirePermission({ desk }: Pick<Administrator, 'desk'>, permission: Permission): void {
  if (!permits(desk, permission)) throw new NotAllowed(NEEDED[permission]);
}

/** The items that a right is limited to; null when it reaches the whole site. */
export const branchItems = (desk: DeskGrant, outline: Outline): ReadonlySet<ItemId> | null =>
  desk.branch === null || desk.right === 'owner'
    ? null
    : new Set(below(outline, desk.branch).map(({ id }) => id));

/** The same as {@link requirePermission} at some items, for content unless it is said; those that are new stand where their parents are. */
export function requirePermissionAt(
  administrator: Pick<Administrator, 'desk'>,
  outline: Outline,
  items: readonly ItemId[],
  permission: Permission = 'content',
): void {
  requirePermission(administrator, permission);
  const reach = branchItems(administrator.desk, outline);
  if (reach === null || items.every((id) => reach.has(id))) return;
  throw new NotAllowed(
    `Your right reaches ${branchName(administrator.desk, outline)} and what is beneath it.`,
  );
}

/** What a limited right is limited to, by name. */
export const branchName = ({ branch }: DeskGrant, outline: Outline): string =>
  (branch && outline.items.get(branch)?.title) ?? 'a page that is no longer there';
