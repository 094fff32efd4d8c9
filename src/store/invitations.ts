/** Invitations by mail that were not answered yet. */
import { and, asc, eq, gt, isNull } from 'drizzle-orm';
import { asId, type PersonId } from '@/core';
import type { Database } from './database';
import { invitations, people } from './schema';

export interface Invitation {
  readonly person: PersonId;
  readonly at: Date;
  readonly until: Date;
}

const isFor = and(eq(people.id, invitations.person), eq(people.email, invitations.email));

/** Writes an invitation in the place of the one before. */
export async function writeInvitation(
  db: Database,
  { person, ...rest }: Invitation & { readonly email: string; readonly tokenHash: string },
): Promise<void> {
  await db
    .insert(invitations)
    .values({ person, ...rest })
    .onConflictDoUpdate({ target: invitations.person, set: rest });
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
