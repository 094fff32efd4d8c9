/** The embedded database: PGlite in a data folder, or in memory, brought up to the newest migration. */
import { drizzle } from 'drizzle-orm/pglite';
import { migrate } from 'drizzle-orm/pglite/migrator';
import type { Database, OpenDatabase } from './database';
import { beginFolder, MIGRATIONS, newDatabase } from './new-database';
import './query-failed';
import * as schema from './schema';
import { asPGlite, openThreadedClient } from './threaded-client';

/** One that can be copied. */
export interface Embedded extends OpenDatabase {
  /** Everything in it, for another one to begin with. */
  readonly dump: () => Promise<Blob>;
}

/**
 * Opens the database in a folder, a fresh one in memory for `null`, or one in memory that begins as another one was; and
 * migrates it.
 */
export async function openEmbedded(from: string | null | Blob): Promise<Embedded> {
  if (typeof from === 'string') await beginFolder(from);
  const client = await openThreadedClient(from, newDatabase());
  try {
    const db = drizzle({ client: asPGlite(client), schema });
    await migrate(db, { migrationsFolder: MIGRATIONS });
    return { db: db as unknown as Database, close: client.close, dump: client.dump, together: null };
  } catch (error) {
    await client.close().catch(() => undefined);
    throw error;
  }
}
