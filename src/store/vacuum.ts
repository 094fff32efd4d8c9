/**
 * Making room: what is deleted or written anew leaves its old rows behind until somebody vacuums the table
 * (https://www.postgresql.org/docs/18/routine-vacuuming.html). A server does so by itself; the embedded database never does.
 */
import { sql } from 'drizzle-orm';
import type { Database } from './database';

/** Fewer dead rows are left where they are, and in a large table fewer than a part of all that is in it. */
const DEAD_ROWS = 1000;
const DEAD_PART = 0.2;
/** Where nobody has counted the rows yet, they are taken to be as large as pieces of files are, in bytes. */
const LARGE_ROW = 2000;

/**
 * Makes room in the table that has the most dead rows, if any has too many; answers its name. Whoever else asks the embedded
 * database waits for it: a second and a half for a million rows.
 */
export async function vacuumWorst(db: Database): Promise<string | null> {
  // What was counted in the last second is told as well.
  await db.execute(sql`select pg_stat_force_next_flush()`);
  const { rows } = await db.execute<{ schema: string; name: string }>(sql`
    select schemaname::text as schema, relname::text as name from (
      select schemaname, s.relname, n_dead_tup,
        greatest(n_live_tup, case when reltuples < 0 then pg_relation_size(relid) / ${LARGE_ROW} else reltuples end) as rows
      from pg_stat_all_tables s join pg_class c on c.oid = relid
      where schemaname in ('public', 'pg_toast')
    ) counted
    where n_dead_tup > ${DEAD_ROWS} and n_dead_tup > ${DEAD_PART}::float8 * rows
    order by n_dead_tup desc limit 1`);
  const [worst] = rows;
  if (!worst) return null;
  await db.execute(sql`vacuum ${sql.identifier(worst.schema)}.${sql.identifier(worst.name)}`);
  return worst.name;
}
