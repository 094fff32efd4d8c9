import { sql } from 'drizzle-orm';
import { expect, inject, it } from 'vitest';
import { tendTables } from '..';
import { openEmpty } from '../testing';

it('makes room on the embedded database, and leaves a server to itself', async () => {
  const trivet = await openEmpty();
  await trivet.db.execute(
    sql`insert into changes (part, id) select 'keys', 'k-' || n from generate_series(1, 20000) n`,
  );
  await trivet.db.execute(sql`delete from changes`);
  await tendTables(trivet);
  // What a server does by itself is told elsewhere.
  const { rows } = await trivet.db.execute<{ vacuumed: boolean }>(
    sql`select last_vacuum is not null as vacuumed from pg_stat_user_tables where relname = 'changes'`,
  );
  expect(rows).toEqual([{ vacuumed: inject('server') === null }]);
  await trivet.close();
});
