/** Whether a database on a server can be Trivet’s; if not, why, with how to mend it. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { ClientBase } from 'pg';
import { NotOpened } from './database';
import { MIGRATIONS } from './new-database';

/** PostgreSQL 15, as servers number themselves. */
const OLDEST = 150_000;

let newest: number | null = null;

/** When the newest migration that this Trivet has was made, as the database tells it of those that it has been through. */
export function newestHere(): number {
  if (newest !== null) return newest;
  const { entries } = JSON.parse(readFileSync(join(MIGRATIONS, 'meta/_journal.json'), 'utf8')) as {
    readonly entries: readonly { readonly when: number }[];
  };
  newest = Math.max(...entries.map(({ when }) => when));
  return newest;
}

interface Said {
  readonly name: string;
  readonly role: string;
  readonly version: number;
  readonly written: string;
  readonly encoding: string;
  readonly collation: string;
  readonly sorts: boolean;
  readonly creates: boolean;
  readonly migrated: boolean;
  readonly others: readonly string[];
}

/** Asks a database for what Trivet needs of it; throws {@link NotOpened} with what is missing. */
export async function askFor(client: ClientBase): Promise<void> {
  const { rows } = await client.query<Said>(`
    select current_database() as name, current_user as role,
      current_setting('server_version_num')::int as version, current_setting('server_version') as written,
      pg_encoding_to_char(encoding) as encoding, datcollate as collation,
      'B' < 'a' and 'z' < 'ä' and lower('Ä') = 'ä' as sorts,
      has_database_privilege(current_database(), 'create') and has_schema_privilege('public', 'create') as creates,
      to_regclass('drizzle.__drizzle_migrations') is not null as migrated,
      array(select tablename::text from pg_tables where schemaname = 'public' order by 1 limit 4) as others
    from pg_database where datname = current_database()`);
  const [said] = rows;
  if (!said) throw new NotOpened('The server does not say what database this is.');
  const { name, role } = said;
  if (said.version < OLDEST)
    throw new NotOpened(`This server is PostgreSQL ${said.written}. Trivet needs version 15 or later.`);
  if (said.encoding !== 'UTF8' || !said.sorts)
    throw new NotOpened(
      `The database ${name} is made for ${said.encoding} and “${said.collation}”. Trivet needs one that sorts by letters alone: createdb --template=template0 --encoding=UTF8 --locale=C.UTF-8 ${name}`,
    );
  if (!said.migrated && said.others.length > 0)
    throw new NotOpened(
      `The database ${name} holds tables of something else (${said.others.join(', ')}). Give Trivet one of its own.`,
    );
  if (!said.migrated && !said.creates)
    throw new NotOpened(
      `${role} may not make tables in the database ${name}. Let it own the database: alter database ${name} owner to ${role}`,
    );
  if (said.migrated) await askForVersion(client);
}

/** The newest migration that a database has been through, as a part of a query. */
export const MIGRATION = '(select max(created_at) from drizzle.__drizzle_migrations)';

/** Throws {@link NotOpened} where a newer Trivet has brought the database up: what this one would write might not fit. */
export async function askForVersion(client: Pick<ClientBase, 'query'>): Promise<void> {
  const { rows } = await client.query<{ migration: number | null }>(`select ${MIGRATION} as migration`);
  requireVersion(rows[0]?.migration ?? 0);
}

export function requireVersion(migration: number): void {
  if (migration > newestHere())
    throw new NotOpened('A newer Trivet has brought this database up. Update this one, and start it again.');
}

/** Why a server is not there to be asked, without what it was asked with. */
export function whyNot(error: unknown): string {
  const { code, message } = (error ?? {}) as { readonly code?: string; readonly message?: string };
  switch (code) {
    case 'ECONNREFUSED':
    case 'ENOENT':
      return 'No PostgreSQL server answers there. Start it, or mend the host and port in TRIVET_DATABASE.';
    case 'ENOTFOUND':
    case 'EAI_AGAIN':
      return 'There is no host of that name. Mend it in TRIVET_DATABASE.';
    case '28P01':
    case '28000':
      return 'The server does not let this user in. Mend user and password in TRIVET_DATABASE.';
    case '3D000':
      return 'There is no database of that name on the server. Make one: createdb --template=template0 --encoding=UTF8 --locale=C.UTF-8 <name>';
    case '42501':
      return 'This user may not do everything in the database that Trivet has to. Let it own the database and its tables.';
    case '53300':
      return 'The server has no connection left. Raise its max_connections, or start fewer processes.';
    default:
      return `The database can’t be opened: ${message ?? 'the server did not say why'}${code ? ` (${code})` : ''}.`;
  }
}
