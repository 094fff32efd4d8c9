/** The stand-ins that an administrator keeps on the board. */
import { eq } from 'drizzle-orm';
import type { PersonId } from '@/core';
import type { Database } from './database';
import { boards } from './schema';
import type { StandInRef } from './types';

export async function readBoard(db: Database, person: PersonId): Promise<readonly StandInRef[] | null> {
  const [row] = await db.select().from(boards).where(eq(boards.person, person));
  return row?.standIns ?? null;
}

export async function writeBoard(
  db: Database,
  person: PersonId,
  standIns: readonly StandInRef[],
): Promise<void> {
  await db
    .insert(boards)
    .values({ person, standIns })
    .onConflictDoUpdate({ target: boards.person, set: { standIns } });
}
