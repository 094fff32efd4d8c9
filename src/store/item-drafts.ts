/** Texts that are being written. */
import { and, desc, eq, sql } from 'drizzle-orm';
import { asId, type ItemId } from '@/core';
import type { Database } from './database';
import { itemDrafts } from './schema';
import type { DraftDocument } from './types';

export type ItemDraft = typeof itemDrafts.$inferSelect;

export async function readItemDraft(db: Database, item: ItemId): Promise<ItemDraft | null> {
  const [row] = await db.select().from(itemDrafts).where(eq(itemDrafts.item, item));
  return row ?? null;
}

/** An item for which there is a draft, with who wrote on it last, and when. */
export interface DraftedItem {
  readonly item: ItemId;
  readonly by: string;
  readonly at: Date;
}

/** The items for which there is a draft, those written on last first. */
export const readDraftedItems = async (db: Database): Promise<readonly DraftedItem[]> =>
  (
    await db
      .select({ item: itemDrafts.item, by: itemDrafts.by, at: itemDrafts.at })
      .from(itemDrafts)
      .orderBy(desc(itemDrafts.at))
  ).map((draft) => ({ ...draft, item: asId<ItemId>(draft.item) }));

/**
 * Saves a draft if it is still at the version named; 0 is for the first save of one. Answers the new version, or null when
 * somebody was quicker.
 */
export async function saveItemDraft(
  db: Database,
  item: ItemId,
  document: DraftDocument,
  version: number,
  by: string,
  at: Date,
): Promise<number | null> {
  if (version === 0) {
    const made = await db
      .insert(itemDrafts)
      .values({ item, document, by, at })
      .onConflictDoNothing()
      .returning();
    return made[0]?.version ?? null;
  }
  const [row] = await db
    .update(itemDrafts)
    .set({ document, by, at, version: sql`${itemDrafts.version} + 1` })
    .where(and(eq(itemDrafts.item, item), eq(itemDrafts.version, version)))
    .returning();
  return row?.version ?? null;
}

export async function deleteItemDraft(db: Database, item: ItemId): Promise<void> {
  await db.delete(itemDrafts).where(eq(itemDrafts.item, item));
}
