/** Databases for tests: embedded, or on the server that tests were given one of. */
import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { type SQL, sql } from 'drizzle-orm';
import pg from 'pg';
import { inject } from 'vitest';
import { type Database, type OpenDatabase, openDatabase, openEmbedded } from '.';

declare module 'vitest' {
  interface ProvidedContext {
    /** The address of a server’s own database; null where tests run on the embedded one. */
    server: string | null;
    /** The file that holds a Larkfell, or the name of the database on the server that does. */
    larkfell: string;
  }
}

/** A fresh database. On a server it is gone when it is closed. */
export const openFresh = (): Promise<OpenDatabase> => {
  const server = inject('server');
  return server === null ? openDatabase(null) : openOn(server, 'template0');
};

/** A database that begins as the Larkfell that was loaded for all tests. */
export const openLoaded = async (): Promise<OpenDatabase> => {
  const server = inject('server');
  const larkfell = inject('larkfell');
  return server === null
    ? openEmbedded(new Blob([new Uint8Array(await readFile(larkfell))]))
    : openOn(server, larkfell);
};

/** A database of its own on the server, empty or as the Larkfell that was loaded; only where tests are given a server. */
export async function databaseOnServer(
  begins: 'empty' | 'loaded',
): Promise<{ readonly url: string; readonly drop: () => Promise<void> }> {
  const server = inject('server');
  if (server === null) throw new Error('These tests run on a server.');
  return databaseFrom(server, begins === 'empty' ? 'template0' : inject('larkfell'));
}

async function databaseFrom(server: string, template: string) {
  const name = `test_${randomUUID().replaceAll('-', '')}`;
  await ask(server, `create database ${name} template ${template}`);
  const url = new URL(server);
  url.pathname = `/${name}`;
  return { url: url.href, drop: () => ask(server, `drop database ${name} with (force)`) };
}

async function openOn(server: string, template: string): Promise<OpenDatabase> {
  const { url, drop } = await databaseFrom(server, template);
  const opened = await openDatabase(url);
  return {
    ...opened,
    close: async () => {
      await opened.close();
      await drop();
    },
  };
}

/** Asks a database for one thing, past everything that Trivet does. */
export async function ask(server: string, what: string): Promise<void> {
  const client = new pg.Client({ connectionString: server });
  await client.connect();
  try {
    await client.query(what);
  } finally {
    await client.end();
  }
}

/** How the database would find what is asked of it, a line each; nothing is found. */
export async function planOf(
  db: Database,
  ask: (db: Database) => Promise<unknown>,
): Promise<readonly string[]> {
  const plan: string[] = [];
  await ask({
    execute: async (query: SQL) => {
      const { rows } = await db.execute<{ readonly 'QUERY PLAN': string }>(sql`explain ${query}`);
      plan.push(...rows.map((row) => row['QUERY PLAN']));
      return { rows: [] };
    },
  } as unknown as Database);
  return plan;
}
