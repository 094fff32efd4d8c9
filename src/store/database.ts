/** Opening the database: PGlite in a data folder, or in memory, brought up to the newest migration. */
import { sql } from 'drizzle-orm';
import { drizzle, type PgliteDatabase } from 'drizzle-orm/pglite';
import { migrate } from 'drizzle-orm/pglite/migrator';
import { beginFolder, MIGRATIONS, newDatabase } from './new-database';
import './query-failed';
import * as schema from './schema';
import { asPGlite, openThreadedClient } from './threaded-client';

/** The database, or a transaction in it: queries take either. */
export type Database = PgliteDatabase<typeof schema>;

/** Asks the database for nothing, which it answers if it answers anything. */
export async function ping(db: Database): Promise<void> {
  await db.execute(sql`select 1`);
}

/** An open database that has to be closed. */
export interface OpenDatabase {
  readonly db: Database;
  readonly close: () => Promise<void>;
  /** Everything in it, for another one to begin with. */
  readonly dump: () => Promise<Blob>;
}

/**
 * Opens the database in a folder, a fresh one in memory for `null`, or one in memory that begins as another one was; and
 * migrates it.
 */
export async function openDatabase(from: string | null | Blob): Promise<OpenDatabase> {
  if (typeof from === 'string') await beginFolder(from);
  const client = await openThreadedClient(from, newDatabase());
  try {
    const db = drizzle({ client: asPGlite(client), schema });
    await migrate(db, { migrationsFolder: MIGRATIONS });
    return { db, close: client.close, dump: client.dump };
  } catch (error) {
    await client.close().catch(() => undefined);
    throw error;
  }
}
