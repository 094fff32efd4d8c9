/** What files hold. */
import { eq } from 'drizzle-orm';
import type { ItemId } from '@/core';
import type { Database } from './database';
import { fileBytes } from './schema';

export async function writeFileBytes(db: Database, item: ItemId, bytes: Uint8Array): Promise<void> {
  await db
    .insert(fileBytes)
    .values({ item, bytes })
    .onConflictDoUpdate({ target: fileBytes.item, set: { bytes } });
}

export async function readFileBytes(db: Database, item: ItemId): Promise<Uint8Array | null> {
  const [row] = await db.select().from(fileBytes).where(eq(fileBytes.item, item));
  return row?.bytes ?? null;
}
