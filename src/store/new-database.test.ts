import { existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { sql } from 'drizzle-orm';
import { drizzle } from 'drizzle-orm/pglite';
import { migrate } from 'drizzle-orm/pglite/migrator';
import { expect, it } from 'vitest';
import type { Database } from './database';
import { openEmbedded } from './embedded';
import { MIGRATIONS, newDatabaseFile } from './new-database';
import { asPGlite, openThreadedClient } from './threaded-client';

/** Everything that makes a database what it is, as text. */
const made = async (db: Pick<Database, 'execute'>) => {
  const list = async (query: string) => (await db.execute(sql.raw(query))).rows;
  return {
    columns: await list(
      `select table_name, column_name, data_type, is_nullable, column_default, is_generated from information_schema.columns where table_schema = 'public' order by 1, ordinal_position`,
    ),
    indexes: await list(`select indexdef from pg_indexes where schemaname = 'public' order by 1`),
    constraints: await list(
      `select conrelid::regclass::text as of, pg_get_constraintdef(oid) as says from pg_constraint where connamespace = 'public'::regnamespace order by 1, 2`,
    ),
    triggers: await list(
      `select pg_get_triggerdef(oid) as says from pg_trigger where not tgisinternal order by 1`,
    ),
    functions: await list(
      `select prosrc from pg_proc where pronamespace = 'public'::regnamespace order by 1`,
    ),
    migrations: await list('select hash from drizzle.__drizzle_migrations order by created_at'),
    rows: await list(
      `select table_name from information_schema.tables where table_schema = 'public' and (xpath('/row/c/text()', query_to_xml(format('select count(*) as c from %I', table_name), false, true, '')))[1]::text <> '0'`,
    ),
  };
};

it('is, unpacked, what would be made from nothing, in memory and in a folder', async () => {
  expect(existsSync(newDatabaseFile()), 'Build first.').toBe(true);
  const client = await openThreadedClient(null);
  const db = drizzle({ client: asPGlite(client) });
  await migrate(db, { migrationsFolder: MIGRATIONS });
  const nothing = await made(db as unknown as Database);
  await client.close();
  expect(nothing.columns.length).toBeGreaterThan(200);
  const place = mkdtempSync(join(tmpdir(), 'trivet-new-'));
  // What a process that was killed has left is in nobody’s way.
  mkdirSync(join(place, 'database-begun'));
  writeFileSync(join(place, 'database-begun', 'PG_VERSION'), 'half');
  for (const where of [null, join(place, 'database'), join(place, 'database')]) {
    const opened = await openEmbedded(where);
    expect(await made(opened.db)).toEqual(nothing);
    await opened.close();
  }
  expect(readdirSync(place)).toEqual(['database']);
  rmSync(place, { recursive: true });
});
