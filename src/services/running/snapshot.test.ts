import { sql } from 'drizzle-orm';
import { afterEach, beforeEach, expect, it } from 'vitest';
import { asId, type PersonId } from '@/core';
import { writeSnapshot } from '@/store';
import { Trivet, tellTroubleTo, tendSnapshot } from '..';
import { now, openLarkfell } from '../testing';
import { staleParts } from '../testing-memory';

let trivet: Trivet;
let troubles: string[];
beforeEach(async () => {
  trivet = await openLarkfell();
  troubles = [];
  tellTroubleTo((what) => troubles.push(what));
});
afterEach(async () => {
  tellTroubleTo(null);
  await trivet.close();
});

const another = () => Trivet.over({ db: trivet.db, close: () => Promise.resolve(), together: null });
const edda = asId<PersonId>('edda');
const change = (text: ReturnType<typeof sql>) => trivet.change(() => trivet.db.execute(text));
const snapshots = async () => {
  const { rows } = await trivet.db.execute<{ number: number | null; texts: number }>(sql`
    select number::int, (select count(*)::int from snapshot_texts where snapshot = id) as texts from snapshots order by id`);
  return rows;
};

/** As whoever brings rows back, with the log's triggers switched off; those that note what is to be put back stay. */
async function pastTheLog(text: ReturnType<typeof sql>): Promise<void> {
  const { rows } = await trivet.db.execute<{ table: string; name: string }>(
    sql`select tgrelid::regclass::text as table, tgname::text as name from pg_trigger where tgname like 'note_%'`,
  );
  const triggers = async (how: 'disable' | 'enable') => {
    for (const { table, name } of rows)
      await trivet.db.execute(sql.raw(`alter table ${table} ${how} trigger ${name}`));
  };
  await triggers('disable');
  await trivet.db.execute(text);
  await triggers('enable');
}

it('is written where there are many people, and read by whoever begins, with what changed since', async () => {
  await tendSnapshot(trivet);
  expect(await snapshots()).toEqual([]);
  await tendSnapshot(trivet, 0);
  expect(await snapshots()).toEqual([{ number: trivet.known.number, texts: expect.any(Number) }]);
  await change(sql`update people set name = 'Zora Changed' where id = 'edda'`);
  await change(sql`delete from people where id = 'lio'`);
  const other = await another();
  expect(other.unheld).not.toBeNull();
  expect(other.state.people.get(edda)?.name).toBe('Zora Changed');
  expect(other.state.people.has(asId('lio'))).toBe(false);
  expect(await staleParts(other, now)).toEqual([]);
  // There are not that many any more.
  await tendSnapshot(trivet);
  expect(await snapshots()).toEqual([]);
});

it('is written anew only where it is too far behind, or somebody is in it as they are not any more for a day', async () => {
  await tendSnapshot(trivet, 0);
  const first = await snapshots();
  await change(sql`update people set name = 'Zora Changed' where id = 'edda'`);
  await tendSnapshot(trivet, 0);
  expect(await snapshots()).toEqual(first);
  await trivet.db.execute(sql`update snapshots set made = made - interval '25 hours'`);
  await tendSnapshot(trivet, 0);
  expect(await snapshots()).toEqual([{ number: trivet.known.number, texts: expect.any(Number) }]);
  // As old, but nobody is another since.
  const second = await snapshots();
  await trivet.db.execute(sql`update snapshots set made = made - interval '25 hours'`);
  await change(sql`update items set body = 'Another' where id = 'visit'`);
  await tendSnapshot(trivet, 0);
  expect(await snapshots()).toEqual(second);
  await change(sql`insert into changes (part, id) select 'people', 'edda' from generate_series(1, 10001)`);
  await tendSnapshot(trivet, 0);
  expect(await snapshots()).not.toEqual(second);
});

it('is not begun with where it is not all there, was made in another way, or the log does not tell of everything since', async () => {
  const isUsed = async () => (await another()).unheld !== null;
  await tendSnapshot(trivet, 0);
  expect(await isUsed()).toBe(true);
  for (const harm of [
    sql`update snapshots set number = null`,
    sql`update snapshots set way = 'as before'`,
    sql`update snapshots set size = size + 1`,
    sql`delete from snapshot_texts`,
    sql`delete from changes where number <= (select number from snapshots)`,
    sql`insert into changes (part) values ('people')`,
  ]) {
    await change(harm);
    expect(await isUsed()).toBe(false);
    await tendSnapshot(trivet, 0);
    // What was harmed without the log knowing of it is mended by nobody, and used by nobody.
    await trivet.db.execute(sql`delete from snapshots`);
    await tendSnapshot(trivet, 0);
    expect(await isUsed()).toBe(true);
  }
});

it('stays as it was where writing another is broken off', async () => {
  await tendSnapshot(trivet, 0);
  const [first] = await snapshots();
  await change(sql`update people set name = 'Zora Changed' where id = 'edda'`);
  const texts = trivet.state.people.parts().map(({ text }) => text);
  await writeSnapshot(trivet.db, trivet.known.number, texts, () => false);
  expect(await snapshots()).toEqual([first, { number: null, texts: 0 }]);
  const other = await another();
  expect([other.unheld !== null, await staleParts(other, now)]).toEqual([true, []]);
  await writeSnapshot(trivet.db, trivet.known.number, texts);
  expect(await snapshots()).toEqual([{ number: trivet.known.number, texts: expect.any(Number) }]);
});

it.each([
  ['everybody is taken out of groups', sql`delete from person_groups`],
  ['somebody is taken away', sql`delete from people where id = 'lio'`],
  ['somebody comes', sql`insert into people (id, email, name) values ('new', 'new@larkfell.example', 'New')`],
])('is held against the tables by whoever began with it: %s past the log', async (_, harm) => {
  await tendSnapshot(trivet, 0);
  await pastTheLog(harm);
  const other = await another();
  expect(await staleParts(other, now)).not.toEqual([]);
  await tendSnapshot(other, 0);
  expect(await staleParts(other, now)).toEqual([]);
  expect(troubles).toEqual(['People were changed past the log of changes; everything is read anew.']);
  // What is written down now is what the tables hold.
  const third = await another();
  expect([third.unheld !== null, await staleParts(third, now)]).toEqual([true, []]);
  await trivet.reload();
});

it('is trusted once it was held against the tables, whatever is changed meanwhile', async () => {
  await tendSnapshot(trivet, 0);
  await change(sql`update people set name = 'Zora Changed' where id = 'edda'`);
  const other = await another();
  const looking = tendSnapshot(other, 0);
  await change(sql`update people set name = 'Zora Again' where id = 'edda'`);
  await change(sql`delete from people where id = 'lio'`);
  await looking;
  await other.change(() => Promise.resolve());
  expect([other.unheld, troubles, await staleParts(other, now)]).toEqual([null, [], []]);
});
