/** Opening the database: PGlite in a data folder, or in memory, brought up to the newest migration. */
import { PGlite } from '@electric-sql/pglite';
import { drizzle, type PgliteDatabase } from 'drizzle-orm/pglite';
import { migrate } from 'drizzle-orm/pglite/migrator';
import * as schema from './schema';

/** The database, or a transaction in it: queries take either. */
export type Database = PgliteDatabase<typeof schema>;

/** An open database that has to be closed. */
export interface OpenDatabase {
  readonly db: Database;
  readonly close: () => Promise<void>;
}

/** Opens the database in a folder, or a fresh one in memory for `null`, and migrates it. */
export async function openDatabase(folder: string | null): Promise<OpenDatabase> {
  const client = folder === null ? new PGlite() : new PGlite(folder);
  try {
    const db = drizzle({ client, schema });
    await migrate(db, { migrationsFolder: 'drizzle' });
    return { db, close: () => client.close() };
  } catch (error) {
    await client.close().catch(() => undefined);
    throw error;
  }
}
