import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { asId, type PersonId } from '@/core';
import { type OpenDatabase, readPeopleAnew } from '.';
import { openFresh, planOf } from './testing';

let opened: OpenDatabase;
beforeAll(async () => {
  opened = await openFresh();
});
afterAll(() => opened.close());

it('reads no table from end to end, however many people there are', async () => {
  const { db } = opened;
  await db.execute(sql`
    insert into people (id, email, name) select 'm' || n, 'm' || n || '@larkfell.example', 'Member ' || n
    from generate_series(1, 10000) n`);
  const plan = await planOf(db, (asked) => readPeopleAnew(asked, [asId<PersonId>('m7')]));
  expect(plan.join('\n')).toContain('Index Scan using people_pkey');
  expect(plan.filter((line) => line.includes('Seq Scan'))).toEqual([]);
});
