/** Keys that members made: for apps, and for a feed of their own. */
import { and, asc, eq } from 'drizzle-orm';
import { asId, type PersonId } from '@/core';
import type { Database } from './database';
import { keys } from './schema';

export type KeyUse = 'api' | 'feed';
export type Key = Omit<typeof keys.$inferSelect, 'hash' | 'person'>;

export async function insertKey(db: Database, key: typeof keys.$inferInsert): Promise<void> {
  await db.insert(keys).values(key);
}

/** Somebody's keys, in the order in which they were made. */
export const readKeys = (db: Database, person: PersonId): Promise<readonly Key[]> =>
  db
    .select({ id: keys.id, use: keys.use, name: keys.name, at: keys.at })
    .from(keys)
    .where(eq(keys.person, person))
    .orderBy(asc(keys.at), asc(keys.id));

/** Whose key this is, or null when there is none (any more). */
export async function readKeyOwner(db: Database, hash: string, use: KeyUse): Promise<PersonId | null> {
  const [row] = await db
    .select({ person: keys.person })
    .from(keys)
    .where(and(eq(keys.hash, hash), eq(keys.use, use)));
  return row ? asId<PersonId>(row.person) : null;
}

/** Takes back one of somebody's keys. */
export async function deleteKey(db: Database, person: PersonId, id: string): Promise<void> {
  await db.delete(keys).where(and(eq(keys.person, person), eq(keys.id, id)));
}
