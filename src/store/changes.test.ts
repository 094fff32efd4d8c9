import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { lastChange, type OpenDatabase, readChangesSince } from '.';
import { openFresh, planOf } from './testing';

let opened: OpenDatabase;
beforeAll(async () => {
  opened = await openFresh();
  await opened.db.execute(
    sql`insert into changes (part, id) select 'people', 'p-' || n % 15000 from generate_series(1, 50000) n`,
  );
});
afterAll(() => opened.close());

it('does not look through all of the log for the little that is new', async () => {
  const plan = await planOf(opened.db, (db) => readChangesSince(db, 49_990));
  expect(plan.join('\n')).toContain('Index Scan');
  expect(plan.filter((line) => line.includes('Seq Scan'))).toEqual([]);
});

it('tells of each once, and of nothing where that is too many', async () => {
  const { db } = opened;
  const last = await lastChange(db);
  const since = await readChangesSince(db, last - 40_000);
  expect([since?.number, since?.people.length]).toEqual([last, 15_000]);
  expect(since?.people).toEqual([...new Set(since?.people)]);
  expect(await readChangesSince(db, last)).toMatchObject({ number: last, people: [], items: [] });
  await db.execute(
    sql`insert into changes (part, id) select 'items', 'i-' || n from generate_series(1, 5001) n`,
  );
  expect(await readChangesSince(db, last - 40_000)).toBeNull();
  expect((await readChangesSince(db, last))?.items.length).toBe(5001);
});
