import { asc, type SQL, sql } from 'drizzle-orm';
import { PgDialect } from 'drizzle-orm/pg-core';
import fc from 'fast-check';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { Database, OpenDatabase } from '.';
import { putting } from './putting';
import { people, personRoles, roles } from './schema';
import { openFresh } from './testing';

let opened: OpenDatabase;
const db = () => opened.db;

beforeAll(async () => {
  opened = await openFresh();
});
afterAll(() => opened.close());

const put = putting(people, ['id', 'email', 'name', 'level', 'profile', 'joined'], ['id']);
const putRoles = putting(personRoles, ['person', 'role'], ['person', 'role']);
const one = (id: string, over: object = {}) => ({
  id,
  email: `${id}@larkfell.example`,
  name: id,
  level: null,
  profile: {},
  joined: null,
  ...over,
});
const there = () =>
  db()
    .select({
      id: people.id,
      email: people.email,
      name: people.name,
      level: people.level,
      profile: people.profile,
      joined: people.joined,
    })
    .from(people)
    .orderBy(asc(sql`${people.id} collate "C"`));

describe('putting rows', () => {
  beforeEach(async () => {
    await db().delete(people);
    await db().delete(roles);
  });

  it('holds what was put, whatever is written in it, and what is put over it', async () => {
    // The database takes no letter zero, and halves of letters are no letters.
    const text = fc.string({ unit: 'binary' }).map((any) => any.replaceAll('\0', '') || 'x');
    const half = fc.constantFrom('\ud83d', 'a\udc00b', '\\ud83d', '"\\');
    const person = fc.record({
      name: fc.oneof(text, half),
      profile: fc.dictionary(fc.constantFrom('team', 'hours', 'note'), fc.oneof(text, fc.integer(), half)),
      joined: fc.constantFrom(null, '2026-02-28', '1999-12-31'),
    });
    const list = fc.array(person, { maxLength: 5 });
    await fc.assert(
      fc.asyncProperty(list, list, async (first, second) => {
        await db().delete(people);
        const rows = (of: readonly object[]) => of.map((over, at) => one(`p${at}`, over));
        await put(db(), rows(first));
        await put(db(), rows(second));
        const whole = JSON.parse(
          JSON.stringify(rows([...second, ...first.slice(second.length)]), (_, value) =>
            typeof value === 'string' ? value.toWellFormed() : value,
          ),
        );
        expect(await there()).toEqual(whole);
      }),
      { numRuns: 40 },
    );
  });

  it('takes what is there already, and leaves columns that it is not told of', async () => {
    await db().insert(roles).values({ id: 'trustee', name: 'Trustee' });
    await put(db(), [one('ines')]);
    await db().update(people).set({ passwordHash: 'kept' });
    await put(db(), [one('ines', { name: 'Ines' })]);
    await putRoles(db(), [{ person: 'ines', role: 'trustee' }]);
    await putRoles(db(), [{ person: 'ines', role: 'trustee' }]);
    expect(await db().select().from(personRoles)).toEqual([{ person: 'ines', role: 'trustee' }]);
    expect(await db().select().from(people)).toMatchObject([{ name: 'Ines', passwordHash: 'kept' }]);
  });

  it('says one thing for any number, and nothing for none', async () => {
    const texts: string[] = [];
    const noted = {
      execute: async (query: SQL) => texts.push(new PgDialect().sqlToQuery(query).sql),
    } as unknown as Database;
    await put(noted, []);
    await put(noted, [one('a')]);
    await put(
      noted,
      Array.from({ length: 1500 }, (_, at) => one(`p${at}`)),
    );
    expect(texts).toHaveLength(3);
    expect(new Set(texts).size).toBe(1);
  });

  it('puts more than one statement takes', async () => {
    await put(
      db(),
      Array.from({ length: 2500 }, (_, at) => one(`p${at}`)),
    );
    expect(await db().$count(people)).toBe(2500);
  });
});
