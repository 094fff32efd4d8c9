/**
 * Putting rows into a table by one text, whatever their number: they are sent as a JSON array, which the database takes apart.
 * What is written again and again is put together and planned once.
 */
import { getTableColumns, type SQL, sql } from 'drizzle-orm';
import { PgDialect, type PgTable } from 'drizzle-orm/pg-core';
import type { Database } from './database';
import { slices } from './slices';

const dialect = new PgDialect();
const named = (list: readonly SQL[]): SQL => sql.join([...list], sql`, `);

/** What lone halves of letters beyond the first plane are written as: the database takes no text that has one. */
const LONE = /\\ud[89a-f]/;
const wellFormed = (_: string, value: unknown) => (typeof value === 'string' ? value.toWellFormed() : value);

function inJson(rows: readonly object[]): string {
  const text = JSON.stringify(rows);
  return LONE.test(text) ? JSON.stringify(rows, wellFormed) : text;
}

/**
 * How rows are put into a table: the columns that they have, and those of them that are one row’s alone. A row that is there
 * already becomes the one that is put; without keys every row is a new one.
 */
export function putting<T extends PgTable, C extends keyof T['$inferInsert'] & string>(
  table: T,
  columns: readonly C[],
  keys: readonly C[] = [],
): (db: Database, rows: readonly Readonly<Pick<T['$inferInsert'], C>>[]) => Promise<void> {
  const all = getTableColumns(table);
  const name = (column: C) => sql.identifier(all[column]?.name ?? column);
  const others = columns.filter((column) => !keys.includes(column));
  const set = others.map((column) => sql`${name(column)} = excluded.${name(column)}`);
  const conflict =
    keys.length === 0
      ? sql``
      : sql` on conflict (${named(keys.map((key) => sql`${name(key)}`))}) do ${others.length === 0 ? sql`nothing` : sql`update set ${named(set)}`}`;
  const once = (part: SQL) => sql.raw(dialect.sqlToQuery(part).sql);
  const list = named(columns.map((column) => sql`${name(column)}`));
  const before = once(
    sql`insert into ${table} (${list}) select ${list} from json_populate_recordset(null::${table}, `,
  );
  const after = once(sql`)${conflict}`);
  return async (db, rows) => {
    for (const slice of slices(rows)) {
      const inColumns = slice.map((row) =>
        Object.fromEntries(columns.map((column) => [all[column]?.name ?? column, row[column]])),
      );
      await db.execute(sql`${before}${inJson(inColumns)}::json${after}`);
    }
  };
}
