/** What files hold. */
import { and, eq, sql } from 'drizzle-orm';
import type { ItemId } from '@/core';
import type { Database } from './database';
import { fileBytes } from './schema';

export async function writeFileBytes(db: Database, item: ItemId, bytes: Uint8Array): Promise<void> {
  // As a text that the database reads: the driver writes bytes one by one, which takes fifteen times as long.
  const text = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength).toString('base64');
  await db
    .insert(fileBytes)
    .values({ item, bytes: sql`decode(${text}, 'base64')` })
    .onConflictDoUpdate({ target: fileBytes.item, set: { bytes: sql`excluded.bytes` } });
}

/** Gives items the bytes that others hold: copies by original. */
export async function copyFileBytes(db: Database, copies: ReadonlyMap<ItemId, ItemId>): Promise<void> {
  for (const [copy, original] of copies)
    await db.execute(
      sql`insert into ${fileBytes} (item, bytes) select ${copy}, bytes from ${fileBytes} where item = ${original}`,
    );
}

export async function readFileBytes(db: Database, item: ItemId): Promise<Uint8Array | null> {
  const [row] = await db.select({ bytes: fileBytes.bytes }).from(fileBytes).where(eq(fileBytes.item, item));
  return row?.bytes ?? null;
}

/** What is known of a file's bytes without reading them: how many there are, and their SHA-256 in base64url. */
export interface FileDigest {
  readonly size: number;
  readonly digest: string;
}

export async function readFileDigest(db: Database, item: ItemId): Promise<FileDigest | null> {
  const [row] = await db
    .select({ size: sql<number>`octet_length(${fileBytes.bytes})`, digest: fileBytes.digest })
    .from(fileBytes)
    .where(eq(fileBytes.item, item));
  return row?.digest ? { size: row.size, digest: Buffer.from(row.digest).toString('base64url') } : null;
}

/** Some of a file's bytes, from a place on; fewer at its end, none when it is gone or has become another. */
export async function readFilePart(
  db: Database,
  item: ItemId,
  digest: string,
  from: number,
  count: number,
): Promise<Uint8Array> {
  const bytes = sql`substring(${fileBytes.bytes} from ${from + 1}::int for ${count}::int)`;
  // As a text here as well: the driver reads bytes one by one.
  const [row] = await db
    .select({ part: sql<string>`encode(${bytes}, 'base64')` })
    .from(fileBytes)
    .where(and(eq(fileBytes.item, item), sql`${fileBytes.digest} = decode(${hexOf(digest)}, 'hex')`));
  return row ? Buffer.from(row.part, 'base64') : new Uint8Array();
}

const hexOf = (digest: string): string => Buffer.from(digest, 'base64url').toString('hex');
