/** Everything of one database into another that holds nothing yet, whatever both live on; and whether it is the same there. */
import { sql } from 'drizzle-orm';
import { noteEverything } from './changes';
import type { Database } from './database';
import { oneOf } from './one-of';

/** So many rows are on their way at a time; of tables whose rows may hold files, one. */
const ROWS = 500;

/** Both sides say numbers, days and moments alike. */
const ALIKE = sql`set local timezone = 'UTC'`;

interface Table {
  readonly name: string;
  /** What is stored of it, in the order of the columns; what is worked out is worked out there. */
  readonly columns: readonly string[];
  readonly hasFiles: boolean;
  /** The tables that its rows refer to. */
  readonly after: readonly string[];
}

/** The log is each database’s own, and what is written down by its numbers. */
const OWN = ['changes', 'snapshots', 'snapshot_texts'];

/** The tables, those that others refer to first. */
async function tablesOf(db: Database): Promise<readonly Table[]> {
  const { rows } = await db.execute<Table & Record<string, unknown>>(sql`
    select c.relname::text as name,
      array(select attname::text from pg_attribute where attrelid = c.oid and attnum > 0 and not attisdropped
        and attgenerated = '' order by attnum) as columns,
      exists (select from pg_attribute where attrelid = c.oid and atttypid = 'bytea'::regtype and attgenerated = '') as "hasFiles",
      array(select distinct confrelid::regclass::text from pg_constraint
        where conrelid = c.oid and contype = 'f' and confrelid <> c.oid) as after
    from pg_class c where c.relnamespace = 'public'::regnamespace and c.relkind = 'r' and not ${oneOf(sql`c.relname::text`, OWN)}
    order by 1`);
  const sorted: Table[] = [];
  const left = new Map(rows.map((table) => [table.name, table]));
  const take = (table: Table) => {
    if (!left.delete(table.name)) return;
    for (const name of table.after) {
      const other = left.get(name.replaceAll('"', ''));
      if (other) take(other);
    }
    sorted.push(table);
  };
  for (const table of rows) take(table);
  return sorted;
}

/** Whether there is nothing in a database yet but its tables. */
export async function isEmptyDatabase(db: Database): Promise<boolean> {
  for (const { name } of await tablesOf(db)) {
    const { rows } = await db.execute(sql`select 1 from ${sql.identifier(name)} limit 1`);
    if (rows.length > 0) return false;
  }
  return true;
}

/** How many processes have a database on a server open beside this one. */
export async function countOthers(db: Database): Promise<number> {
  const { rows } = await db.execute<{ count: number }>(sql`
    select count(distinct application_name)::int as count from pg_stat_activity
    where datname = current_database() and application_name like 'Trivet %'
      and application_name <> current_setting('application_name')`);
  return rows[0]?.count ?? 0;
}

/** Copies every row: all of them, or none. Calls back with how many rows of how many are there. */
export async function copyDatabase(
  from: Database,
  to: Database,
  told: (rows: number, of: number) => void,
): Promise<void> {
  const readAt = { isolationLevel: 'repeatable read' } as const;
  await from.transaction(async (source) => {
    await source.execute(ALIKE);
    const tables = await tablesOf(source);
    let all = 0;
    for (const { name } of tables) all += await countIn(source, name);
    let done = 0;
    await to.transaction(async (target) => {
      await target.execute(ALIKE);
      await noteEverything(target);
      for (const table of tables)
        for await (const rows of piecesOf(source, table)) {
          await insertRows(target, table, rows);
          done += rows.length;
          told(done, all);
        }
      await copyNumbers(source, target);
    });
  }, readAt);
}

async function countIn(db: Database, name: string): Promise<number> {
  const { rows } = await db.execute<{ count: number }>(
    sql`select count(*)::int as count from ${sql.identifier(name)}`,
  );
  return rows[0]?.count ?? 0;
}

const listed = (columns: readonly string[]) =>
  sql.join(
    columns.map((column) => sql.identifier(column)),
    sql`, `,
  );

/** The rows of a table as JSON, a few at a time. */
async function* piecesOf(
  db: Database,
  { name, columns, hasFiles }: Table,
): AsyncGenerator<readonly string[]> {
  await db.execute(
    sql`declare moved no scroll cursor for select to_json(one)::text as row
      from (select ${listed(columns)} from ${sql.identifier(name)}) one`,
  );
  const fetch = sql.raw(`fetch ${hasFiles ? 1 : ROWS} from moved`);
  for (;;) {
    const { rows } = await db.execute<{ row: string }>(fetch);
    if (rows.length === 0) break;
    yield rows.map(({ row }) => row);
  }
  await db.execute(sql`close moved`);
}

async function insertRows(db: Database, { name, columns }: Table, rows: readonly string[]): Promise<void> {
  const table = sql.identifier(name);
  await db.execute(
    sql`insert into ${table} (${listed(columns)}) overriding system value
      select ${listed(columns)} from json_populate_recordset(null::${table}, ${`[${rows.join(',')}]`}::json)`,
  );
}

/** What is counted goes on where it was: no number comes back. */
async function copyNumbers(from: Database, to: Database): Promise<void> {
  const { rows } = await from.execute<{ name: string; last: number }>(sql`
    select sequencename::text as name, last_value::int8 as last from pg_sequences
    where schemaname = 'public' and last_value is not null`);
  for (const { name, last } of rows)
    if (!OWN.some((own) => name.startsWith(`${own}_`)))
      await to.execute(sql`select setval(${`public.${name}`}::regclass, ${last})`);
}

/** The tables that don’t hold the same in both, by how many rows there are and a hash over all of them; none. */
export async function differingTables(one: Database, other: Database): Promise<readonly string[]> {
  const [here, there] = [await contentsOf(one), await contentsOf(other)];
  return [...here].filter(([name, content]) => there.get(name) !== content).map(([name]) => name);
}

const contentsOf = (db: Database): Promise<ReadonlyMap<string, string>> =>
  db.transaction(async (tx) => {
    await tx.execute(ALIKE);
    const contents = new Map<string, string>();
    for (const { name, columns } of await tablesOf(tx)) {
      const { rows } = await tx.execute<{ content: string }>(sql`
        select count(*) || ' ' || coalesce(md5(string_agg(hash, '' order by hash)), '') as content
        from (select md5(row(${listed(columns)})::text) as hash from ${sql.identifier(name)}) hashed`);
      contents.set(name, rows[0]?.content ?? '');
    }
    return contents;
  });
