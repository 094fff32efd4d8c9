import { afterAll, beforeAll, expect, it } from 'vitest';
import { openThreadedClient, type ThreadedClient } from './threaded-client';

let client: ThreadedClient;
beforeAll(async () => {
  client = await openThreadedClient(null);
  await client.exec('CREATE TABLE kept (name text PRIMARY KEY, bytes bytea)');
});
afterAll(() => client.close());

const names = async () =>
  (await client.query('SELECT name FROM kept ORDER BY name', [], { rowMode: 'array' })).rows.flat();

it('asks and answers with values of every sort', async () => {
  const bytes = new Uint8Array([0, 1, 254, 255]);
  await client.query('INSERT INTO kept VALUES ($1, $2)', ['one', bytes]);
  const { rows } = await client.query('SELECT name, bytes, 7 AS seven, null AS none FROM kept');
  expect(rows).toEqual([{ name: 'one', bytes, seven: 7, none: null }]);
  await client.exec('DELETE FROM kept');
});

it('leaves the text of a type that it is asked to leave', async () => {
  const day = (await client.query("SELECT date '2026-11-20' AS day")).rows[0] as { day: unknown };
  expect(day.day).toBeInstanceOf(Date);
  const raw = await client.query("SELECT date '2026-11-20' AS day", [], {
    parsers: { 1082: (text: string) => text },
  });
  expect(raw.rows).toEqual([{ day: '2026-11-20' }]);
});

it('keeps what a transaction wrote once it has ended, and nothing of one that failed', async () => {
  await client.transaction(async (tx) => {
    await tx.query("INSERT INTO kept VALUES ('kept')");
  });
  await expect(
    client.transaction(async (tx) => {
      await tx.query("INSERT INTO kept VALUES ('not kept')");
      throw new Error('no');
    }),
  ).rejects.toThrow('no');
  // What fails only as the transaction ends is told as well.
  await client.exec('CREATE TABLE later (name text UNIQUE DEFERRABLE INITIALLY DEFERRED)');
  await expect(
    client.transaction(async (tx) => {
      await tx.query("INSERT INTO later VALUES ('twice'), ('twice')");
    }),
  ).rejects.toMatchObject({ code: '23505' });
  expect(await names()).toEqual(['kept']);
  await client.exec('DELETE FROM kept');
});

it('lets nobody in between the queries of a transaction', async () => {
  let go = () => {};
  const waiting = new Promise<void>((resolve) => {
    go = resolve;
  });
  const transaction = client.transaction(async (tx) => {
    await tx.query("INSERT INTO kept VALUES ('inside')");
    await waiting;
    throw new Error('undone');
  });
  const outside = client.query("INSERT INTO kept VALUES ('outside')");
  go();
  await expect(transaction).rejects.toThrow('undone');
  await outside;
  expect(await names()).toEqual(['outside']);
  await client.exec('DELETE FROM kept');
});

it('says what went wrong with PostgreSQL’s code and the constraint', async () => {
  await client.query("INSERT INTO kept VALUES ('one')");
  await expect(client.query("INSERT INTO kept VALUES ('one')")).rejects.toMatchObject({
    code: '23505',
    constraint: 'kept_pkey',
  });
  await client.exec('DELETE FROM kept');
});

it('asks the same again with other values, also after it failed', async () => {
  const insert = 'INSERT INTO kept VALUES ($1, $2) RETURNING name';
  const put = async (name: string, bytes: Uint8Array | null) =>
    (await client.query(insert, [name, bytes])).rows;
  expect(await put('one', null)).toEqual([{ name: 'one' }]);
  await expect(put('one', null)).rejects.toMatchObject({ code: '23505' });
  expect(await put('two', new Uint8Array([7]))).toEqual([{ name: 'two' }]);
  await expect(
    client.transaction(async (tx) => {
      await tx.query(insert, ['three', null]);
      await tx.query(insert, ['one', null]);
    }),
  ).rejects.toMatchObject({ code: '23505' });
  expect(await names()).toEqual(['one', 'two']);
  expect((await client.query('DELETE FROM kept WHERE name = $1', ['two'])).affectedRows).toBe(1);
  await expect(client.query('SELECT nothing FROM nowhere')).rejects.toMatchObject({ code: '42P01' });
  await expect(client.query(insert, ['three'])).rejects.toMatchObject({ code: '08P01' });
  expect(await names()).toEqual(['one']);
  await client.exec('DELETE FROM kept');
});

it('answers with the columns that there are, however they came', async () => {
  const columns = async () => (await client.query('SELECT * FROM changing')).fields.map(({ name }) => name);
  await client.query('CREATE TABLE changing (a int)');
  expect(await columns()).toEqual(['a']);
  await client.query('ALTER TABLE changing ADD COLUMN b int');
  expect(await columns()).toEqual(['a', 'b']);
  await client.exec('ALTER TABLE changing ADD COLUMN c int');
  expect(await columns()).toEqual(['a', 'b', 'c']);
  const undone = client.transaction(async (tx) => {
    await tx.query('ALTER TABLE changing DROP COLUMN a');
    expect((await tx.query('SELECT * FROM changing')).fields).toHaveLength(2);
    throw new Error('undone');
  });
  await expect(undone).rejects.toThrow('undone');
  expect(await columns()).toEqual(['a', 'b', 'c']);
  await client.exec('DROP TABLE changing');
});

it('knows as many questions as are asked, and keeps some hundred of them ready', async () => {
  for (let at = 0; at < 900; at++)
    expect((await client.query(`SELECT $1::int + ${at % 450} AS sum`, [at])).rows).toEqual([
      { sum: at + (at % 450) },
    ]);
  const { rows } = await client.query('SELECT count(*)::int AS count FROM pg_prepared_statements');
  const { count } = rows[0] as { count: number };
  expect(count).toBeGreaterThan(100);
  expect(count).toBeLessThanOrEqual(400);
});

it('lets what waits between two transactions be part of neither', async () => {
  const gates = [0, 1].map(() => {
    let open = () => {};
    const passed = new Promise<void>((resolve) => {
      open = resolve;
    });
    return { open, passed };
  });
  const undone = (at: number) =>
    client.transaction(async (tx) => {
      await tx.query('INSERT INTO kept VALUES ($1)', [`inside ${at}`]);
      await gates[at]?.passed;
      throw new Error('undone');
    });
  const first = undone(0);
  const between = client.query("INSERT INTO kept VALUES ('between')");
  const second = undone(1);
  const after = client.query("INSERT INTO kept VALUES ('after')");
  for (const [at, one] of [first, second].entries()) {
    gates[at]?.open();
    await expect(one).rejects.toThrow('undone');
  }
  await Promise.all([between, after]);
  expect(await names()).toEqual(['after', 'between']);
  await client.exec('DELETE FROM kept');
});

it('begins as another one was', async () => {
  await client.query("INSERT INTO kept VALUES ('copied')");
  const copy = await openThreadedClient(await client.dump());
  expect((await copy.query('SELECT name FROM kept')).rows).toEqual([{ name: 'copied' }]);
  await copy.close();
  await expect(copy.query('SELECT 1')).rejects.toThrow('closed');
  await client.exec('DELETE FROM kept');
});

it('leaves this thread free while a query takes its time', async () => {
  let answered = false;
  let turns = 0;
  const turn = () => {
    turns += 1;
    if (!answered) setImmediate(turn);
  };
  setImmediate(turn);
  await client.query('SELECT count(*) FROM generate_series(1, 1000000)');
  answered = true;
  // In this thread it would be one or two.
  expect(turns).toBeGreaterThan(50);
});
