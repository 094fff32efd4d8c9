import { sql } from 'drizzle-orm';
import { afterEach, beforeEach, describe, expect, inject, it } from 'vitest';
import { isAway, NotOpened, type OpenDatabase, openDatabase, readChangesSince } from '.';
import { askFor, newestHere, whyNot } from './server-checks';
import { ask, databaseOnServer } from './testing';

describe.skipIf(inject('server') === null)('a database on a server', () => {
  let url: string;
  let drop: () => Promise<void>;
  const opened: OpenDatabase[] = [];
  const open = async (where = url): Promise<OpenDatabase> => {
    const one = await openDatabase(where);
    opened.push(one);
    return one;
  };
  const refused = async (where = url) => {
    const error = await openDatabase(where).catch((thrown: unknown) => thrown);
    expect(error).toBeInstanceOf(NotOpened);
    return (error as Error).message;
  };

  beforeEach(async () => {
    ({ url, drop } = await databaseOnServer('empty'));
  });
  afterEach(async () => {
    for (const one of opened.splice(0)) await one.close();
    await drop();
  });

  it('is brought up by one of several that come at once', async () => {
    const all = await Promise.all([open(), open(), open()]);
    for (const { db } of all)
      expect((await db.execute(sql`select count(*)::int as count from items`)).rows).toEqual([{ count: 0 }]);
  });

  it('is refused with a sentence where it can’t be Trivet’s, and left as it is', async () => {
    await ask(url, 'create table somebody (id int)');
    expect(await refused()).toMatch(/holds tables of something else \(somebody\)/);
    await ask(url, 'drop table somebody');
    const user = new URL(url);
    user.username = 'visitor';
    await ask(
      url,
      `do $$ begin create role visitor login; exception when duplicate_object then null; end $$`,
    );
    expect(await refused(user.href)).toMatch(/visitor may not make tables/);
    const other = new URL(url);
    other.pathname = '/nothing_of_that_name';
    expect(await refused(other.href)).toMatch(/no database of that name/);
    expect(await refused('postgres://trivet@127.0.0.1:9/trivet')).toMatch(/No PostgreSQL server answers/);
    expect(await refused('postgres://trivet@nowhere.example:1/trivet')).toMatch(
      /There is no host of that name/,
    );
    await ask(url, 'create table items (id int)');
    expect(await refused()).toMatch(/something else \(items\)/);
  });

  it('is refused where it sorts by a language', async () => {
    const name = `sorted_${process.pid}`;
    await ask(
      url,
      `create database ${name} template template0 locale_provider icu icu_locale 'de' locale 'C.UTF-8'`,
    );
    const sorted = new URL(url);
    sorted.pathname = `/${name}`;
    expect(await refused(sorted.href)).toMatch(/sorts by letters alone: createdb --template=template0/);
    await ask(url, `drop database ${name}`);
  });

  it('is left alone by an older Trivet, whether that starts or runs already', async () => {
    const { together } = await open();
    expect(await together?.lastNumber()).toBe(0);
    await ask(
      url,
      `insert into drizzle.__drizzle_migrations (hash, created_at) values ('of a newer one', ${newestHere() + 1})`,
    );
    expect(await refused()).toMatch(/A newer Trivet has brought this database up/);
    await expect(together?.lastNumber()).rejects.toThrow('A newer Trivet has brought this database up');
    await expect(together?.alone(async () => 'written')).rejects.toThrow('A newer Trivet');
  });

  it('asks for a server that is new enough', async () => {
    const client = { query: async () => ({ rows: [{ version: 140_011, written: '14.11' }] }) };
    await expect(askFor(client as never)).rejects.toThrow(
      'This server is PostgreSQL 14.11. Trivet needs version 15',
    );
  });

  it('tells why it is not there, and never with what it was asked', () => {
    for (const code of ['28P01', '42501', '53300', 'ECONNREFUSED', 'ENOTFOUND', '3D000'])
      expect(whyNot({ code, message: 'secret' })).not.toContain('secret');
    expect(whyNot(new Error('It is raining'))).toBe('The database can’t be opened: It is raining.');
  });

  it('is written by one at a time, whoever has it', async () => {
    const [one, other] = [await open(), await open()];
    let at = 0;
    let most = 0;
    const work = async () => {
      at += 1;
      most = Math.max(most, at);
      await one.db.execute(sql`select pg_sleep(0.01)`);
      at -= 1;
    };
    await Promise.all([one, other, one, other, one].map(({ together }) => together?.alone(work)));
    expect(most).toBe(1);
  });

  it('lets a job be done by one of those who are about to', async () => {
    const [one, other] = [await open(), await open()];
    const done: string[] = [];
    await one.together?.unlessAnother('orders', async () => {
      done.push('one');
      await other.together?.unlessAnother('orders', async () => {
        done.push('other');
      });
    });
    await other.together?.unlessAnother('orders', async () => {
      done.push('other, later');
    });
    expect(done).toEqual(['one', 'other, later']);
  });

  it('is not written by whoever has lost the lock, and is free for the next', async () => {
    const [one, other] = [await open(), await open()];
    const insert = sql`insert into roles (id, name) values ('keeper', 'Keeper')`;
    const lost = one.together?.alone((db) =>
      db.transaction(async (tx) => {
        await tx.execute(insert);
        const { rows } = await tx.execute<{ pid: number }>(sql`select pg_backend_pid() as pid`);
        await other.db.execute(sql`select pg_terminate_backend(${rows[0]?.pid ?? 0})`);
        await tx.execute(sql`select 1`);
      }),
    );
    const error = await lost?.catch((thrown: unknown) => thrown);
    expect(isAway(error)).toBe(true);
    const roles = await other.together?.alone((db) => db.execute(sql`select id from roles`));
    expect(roles?.rows).toEqual([]);
    // And whoever lost it may write again.
    await one.together?.alone((db) => db.execute(insert));
    expect((await other.db.execute(sql`select id from roles`)).rows).toEqual([{ id: 'keeper' }]);
  });

  it('tells of what was written in its order, and only of what stands', async () => {
    const [one, other] = [await open(), await open()];
    const heard = new Promise<void>((hear) => other.together?.listen(hear));
    expect(await other.together?.lastNumber()).toBe(0);
    // What comes second waits: no number is known before one that comes earlier.
    let second: Promise<unknown> = Promise.resolve();
    await one.db.transaction(async (tx) => {
      await tx.execute(sql`insert into roles (id, name) values ('a', 'A')`);
      // Asked as soon as somebody waits for it, and each time somebody does.
      second = Promise.resolve(other.db.execute(sql`insert into groups (id, name) values ('b', 'B')`));
      second.catch(() => undefined);
      await tx.execute(sql`select pg_sleep(0.05)`);
      expect(await other.together?.lastNumber()).toBe(0);
    });
    await second;
    await heard;
    const number = await other.together?.lastNumber();
    const { rows } = await one.db.execute<{ number: number }>(
      sql`select number from changes order by number`,
    );
    expect(rows.at(-1)?.number).toBe(number);
    await expect(
      one.db.transaction(async (tx) => {
        await tx.execute(sql`insert into roles (id, name) values ('c', 'C')`);
        throw new Error('undone');
      }),
    ).rejects.toThrow('undone');
    expect(await other.together?.lastNumber()).toBe(number);
    expect((await readChangesSince(one.db, 0))?.parts).toEqual(new Set(['names']));
  });

  it('is asked again after its connections were cut', async () => {
    const { db, together } = await open();
    expect(await together?.lastNumber()).toBe(0);
    await ask(
      url,
      'select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid()',
    );
    await together?.lastNumber().catch(() => undefined);
    expect(await together?.lastNumber()).toBe(0);
    await db.execute(sql`select 1`).catch(() => undefined);
    expect((await db.execute(sql`select 1 as one`)).rows).toEqual([{ one: 1 }]);
  });
});
