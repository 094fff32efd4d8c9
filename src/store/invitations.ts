/** Invitations by mail that were not answered yet. */
import { and, asc, eq, gt, isNull, sql } from 'drizzle-orm';
import { asId, type PersonId } from '@/core';
import type { Database } from './database';
import { invitations, people } from './schema';

export interface Invitation {
  readonly person: PersonId;
  readonly at: Date;
  readonly until: Date;
}

const isFor = and(eq(people.id, invitations.person), eq(people.email, invitations.email));

// Invitations are written in slices of this many.
const SLICE = 500;

/** Writes invitations, each in the place of the one before. */
export async function writeInvitations(
  db: Database,
  list: readonly (Invitation & { readonly email: string; readonly tokenHash: string })[],
): Promise<void> {
  for (let at = 0; at < list.length; at += SLICE)
    await db
      .insert(invitations)
      .values(list.slice(at, at + SLICE))
      .onConflictDoUpdate({
        target: invitations.person,
        set: {
          email: sql`excluded.email`,
          tokenHash: sql`excluded.token_hash`,
          at: sql`excluded."at"`,
          until: sql`excluded."until"`,
        },
      });
}

/** The invitation of a token that somebody without a password can still answer; null when there is none. */
export async function readInvitation(db: Database, tokenHash: string, now: Date): Promise<Invitation | null> {
  const [found] = await db
    .select({ person: invitations.person, at: invitations.at, until: invitations.until })
    .from(invitations)
    .innerJoin(people, isFor)
    .where(
      and(eq(invitations.tokenHash, tokenHash), gt(invitations.until, now), isNull(people.passwordHash)),
    );
  return found ? { ...found, person: asId<PersonId>(found.person) } : null;
}

/** Uses an invitation up; answers whether it was still there. */
export async function spendInvitation(db: Database, tokenHash: string): Promise<boolean> {
  const gone = await db
    .delete(invitations)
    .where(eq(invitations.tokenHash, tokenHash))
    .returning({ person: invitations.person });
  return gone.length > 0;
}

/** Those who were invited and have no password yet, whoever waits longest first. */
export async function readUnanswered(db: Database, most: number): Promise<readonly Invitation[]> {
  const rows = await db
    .select({ person: invitations.person, at: invitations.at, until: invitations.until })
    .from(invitations)
    .innerJoin(people, isFor)
    .where(isNull(people.passwordHash))
    .orderBy(asc(invitations.at), asc(invitations.person))
    .limit(most);
  return rows.map((row) => ({ ...row, person: asId<PersonId>(row.person) }));
}
