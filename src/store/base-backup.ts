/**
 * A base backup, as PostgreSQL makes one while it is being written to (https://www.postgresql.org/docs/18/continuous-archiving.html):
 * between beginning and end the files of its folder are copied as they are, and what was written meanwhile is in its log,
 * from which a copy becomes whole when it is opened.
 */
import { sql } from 'drizzle-orm';
import type { Database } from './database';

const SLOT = 'trivet_backup';

/** Begins one; a slot keeps what the log says from then on. There is one at a time. */
export async function beginBaseBackup(db: Database): Promise<void> {
  // Temporary: with the process it is gone.
  await db.execute(sql`select pg_create_physical_replication_slot(${SLOT}, true, true)`);
  await db.execute(sql`select pg_backup_start('Trivet', true)`);
}

/** Ends it; answers what a copy has to be told of where it began. The log is kept until it is let go. */
export async function endBaseBackup(db: Database): Promise<string> {
  const { rows } = await db.execute<{ labelfile: string }>(sql`select labelfile from pg_backup_stop(false)`);
  return rows[0]?.labelfile ?? '';
}

/** Lets the log go, and ends a backup that nobody ended. */
export async function letGoOfBackup(db: Database): Promise<void> {
  await db.execute(sql`select pg_backup_stop(false)`).catch(() => undefined);
  await db.execute(sql`select pg_drop_replication_slot(${SLOT})`).catch(() => undefined);
}
