import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { type Embedded, vacuumWorst, writeSnapshot } from '.';
import { openEmbedded } from './embedded';

let opened: Embedded;
beforeAll(async () => {
  opened = await openEmbedded(null);
});
afterAll(() => opened.close());

const sizeOf = async (table: string): Promise<number> => {
  const { rows } = await opened.db.execute<{ size: number }>(
    sql`select pg_total_relation_size(${table}::regclass)::int as size`,
  );
  return rows[0]?.size ?? 0;
};

it('makes room for what comes, in the table that has the most of what is gone', async () => {
  const { db } = opened;
  const write = () =>
    db.execute(
      sql`insert into changes (part, id) select 'people', 'p-' || n from generate_series(1, 20000) n`,
    );
  await write();
  expect(await vacuumWorst(db)).toBeNull();
  await db.execute(sql`delete from changes`);
  const size = await sizeOf('changes');
  expect(await vacuumWorst(db)).toBe('changes');
  expect(await vacuumWorst(db)).toBeNull();
  await write();
  expect(await sizeOf('changes')).toBeLessThan(size * 1.5);
  // A few are left where they are.
  await db.execute(sql`delete from changes where number % 10 = 0`);
  expect(await vacuumWorst(db)).toBeNull();
});

it('makes room where people were written down before', async () => {
  const { db } = opened;
  // Letters that take as much room as they say.
  const texts = Array.from({ length: 2000 }, (_, at) =>
    Array.from({ length: 100 }, (__, n) => Math.imul(at * 100 + n, 2654435761).toString(36)).join(),
  );
  await writeSnapshot(db, 0, texts);
  const first = await sizeOf('snapshot_texts');
  for (let round = 0; round < 5; round++) {
    await writeSnapshot(db, 0, texts);
    await vacuumWorst(db);
  }
  expect(await sizeOf('snapshot_texts')).toBeLessThan(3.5 * first);
});
