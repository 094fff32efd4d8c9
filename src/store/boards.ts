/** The stand-ins that an administrator keeps on the board. */
import { eq } from 'drizzle-orm';
import type { PersonId } from '@/core';
import type { Database } from './database';
import { boardSets, boards } from './schema';
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

/** Stand-ins under a name, for every administrator. */
export type BoardSet = typeof boardSets.$inferSelect;

/** All of them, by name. */
export const readBoardSets = (db: Database): Promise<readonly BoardSet[]> =>
  db.select().from(boardSets).orderBy(boardSets.name);

/** Keeps a set; one of the same name is replaced. */
export async function writeBoardSet(db: Database, set: BoardSet): Promise<void> {
  const { standIns, by } = set;
  await db
    .insert(boardSets)
    .values(set)
    .onConflictDoUpdate({ target: boardSets.name, set: { standIns, by } });
}

export async function deleteBoardSet(db: Database, id: string): Promise<void> {
  await db.delete(boardSets).where(eq(boardSets.id, id));
}
