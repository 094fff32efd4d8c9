import { readdirSync, readFileSync } from 'node:fs';
import { PGlite } from '@electric-sql/pglite';
import { describe, expect, it } from 'vitest';
import { asId, type ItemId, itemNamesIn, outlineOf } from '@/core';
import { openEmbedded, readChange, readItems, readMatches, readPeople, readPolicies, readSettings } from '.';

/** PostgreSQL’s own files, made once: that takes longer than all that is done to them. */
let made: Promise<Blob> | undefined;
async function bare(): Promise<PGlite> {
  made ??= PGlite.create().then((client) => client.dumpDataDir('none').finally(() => client.close()));
  return PGlite.create({ loadDataDir: await made });
}

/** Runs the first migrations as they are, and notes them as the migrator would. */
async function databaseOf(migrations: number): Promise<PGlite> {
  const client = await bare();
  const journal = JSON.parse(readFileSync('drizzle/meta/_journal.json', 'utf8'));
  await client.exec(
    'create schema drizzle; create table drizzle.__drizzle_migrations (id serial primary key, hash text not null, created_at bigint);',
  );
  const files = readdirSync('drizzle')
    .filter((name) => name.endsWith('.sql'))
    .sort();
  for (const [index, file] of files.slice(0, migrations).entries()) {
    await client.exec(readFileSync(`drizzle/${file}`, 'utf8').replaceAll('--> statement-breakpoint', ''));
    await client.query('insert into drizzle.__drizzle_migrations (hash, created_at) values ($1, $2)', [
      file,
      journal.entries[index].when,
    ]);
  }
  return client;
}

describe('a site from before there were sections', () => {
  it('keeps its texts, each as a section of its page, and its gates', async () => {
    const before = await databaseOf(3);
    const old = {
      gates: [
        {
          id: 'observers',
          what: { targets: [{ kind: 'branch', item: 'home' }], except: [] },
          who: { kind: 'test', fact: 'signed in', op: 'is' },
          otherwise: {
            cases: [],
            last: { kind: 'teaser', text: 'Come in.', reason: { kind: 'written' }, next: { kind: 'none' } },
          },
          stance: 'also',
        },
      ],
    };
    await before.query(
      `insert into items (id, kind, parent, rank, title, address, body) values ('site', 'site', null, 0, 'Site', null, 'Note'), ('home', 'page', 'site', 0, 'Home', '/', 'The text.'), ('bare', 'page', 'site', 1, 'Bare', '/bare', '')`,
    );
    await before.query(`insert into revisions (number, policy, author) values (1, $1, 'Greta')`, [
      JSON.stringify(old),
    ]);
    await before.query(`insert into policy_state (draft, draft_by, live) values ($1, 'Greta', 1)`, [
      JSON.stringify(old),
    ]);
    const opened = await openEmbedded(await before.dumpDataDir('none'));
    await before.close();
    const items = await readItems(opened.db);
    const bodies = Object.fromEntries(items.map(({ item, content }) => [item.id, content.body]));
    expect(bodies).toEqual({ site: 'Note', home: '', bare: '', 'home-text': 'The text.' });
    expect(items.find(({ item }) => item.id === 'home-text')?.item).toMatchObject({
      kind: 'section',
      type: 'text',
      parent: 'home',
    });
    const policies = await readPolicies(opened.db);
    expect(policies?.live.policy).toMatchObject({
      gates: [
        { otherwise: { last: { kind: 'teaser', show: { kind: 'text', text: 'Come in.' }, preview: false } } },
      ],
      audiences: [],
      turnAways: [],
      landings: [],
      defaults: [],
      expectations: [],
    });
    await opened.close();
  });
});

describe('a site from before there were rights at the desk', () => {
  it('has owners where it had people who may use the desk, and goes on counting', async () => {
    const before = await databaseOf(4);
    await before.exec(
      "insert into people (id, email, name, desk) values ('greta', 'greta@larkfell.example', 'Greta', true), ('marek', 'marek@larkfell.example', 'Marek', false)",
    );
    await before.exec(
      "insert into settings (time_zone, share_key, passphrase_salt) values ('UTC', '00', '00')",
    );
    const marek = { id: 'marek', roles: [], groups: [], enrolments: [], completions: [] };
    await before.query('insert into people_changes (id, by, summary, people) values ($1, $2, $3, $4)', [
      'c',
      'Greta',
      'Marek changed',
      JSON.stringify([{ before: { ...marek, desk: false }, after: { ...marek, desk: true } }]),
    ]);
    const opened = await openEmbedded(await before.dumpDataDir('none'));
    await before.close();
    const people = await readPeople(opened.db);
    expect(people.map(({ id, desk }) => [id, desk])).toEqual([
      ['greta', { right: 'owner', branch: null }],
      ['marek', null],
    ]);
    expect(await readSettings(opened.db)).toMatchObject({ journal: 'counts', journalDays: 90 });
    expect((await readChange(opened.db, 'c'))?.people).toMatchObject([
      { before: { desk: null }, after: { desk: { right: 'owner', branch: null } } },
    ]);
    await opened.close();
  });
});

describe('a site from when courses and activities were names', () => {
  it('keeps what its conditions and records mean by them, as items that nobody sees yet', async () => {
    const before = await databaseOf(9);
    await before.query(
      `insert into items (id, kind, parent, rank, title, address) values ('site', 'site', null, 0, 'Site', null), ('home', 'page', 'site', 0, 'Home', '/'), ('taken', 'page', 'site', 1, 'Taken', '/courses/astro')`,
    );
    await before.query(
      `insert into courses (id, name) values ('induction', 'Induction'), ('astro', 'Astrophotography'), ('Odd id!', 'Odd')`,
    );
    await before.query(
      `insert into activities (id, name) values ('ladder', 'Ladder safety'), ('knots', 'Knots')`,
    );
    await before.query(
      `insert into people (id, email, name) values ('wren', 'wren@larkfell.example', 'Wren')`,
    );
    await before.query(
      `insert into enrolments (person, course, "on") values ('wren', 'induction', '2026-10-01')`,
    );
    await before.query(
      `insert into completions (person, activity, "on", score) values ('wren', 'ladder', '2026-10-02', 92)`,
    );
    const record = {
      id: 'wren',
      roles: [],
      groups: [],
      profile: { activity: 'x' },
      enrolments: [{ course: 'induction', on: '2026-10-01' }],
      completions: [{ activity: 'ladder', on: '2026-10-02', score: 92 }],
    };
    await before.query(
      `insert into people_changes (id, "by", summary, people, names) values ('c', 'Greta', 'A change', $1, $2), ('d', 'Greta', 'Another', '[]', null)`,
      [
        JSON.stringify([{ before: null, after: record }]),
        JSON.stringify({
          before: { roles: [], courses: [], activities: [] },
          after: { roles: [], courses: [] },
        }),
      ],
    );
    const standIns = JSON.stringify([
      'guest',
      { person: 'wren' },
      { madeUp: { id: 'm', name: 'M', facts: record } },
    ]);
    await before.query(
      `insert into board_sets (id, name, stand_ins, "by") values ('s', 'Set', $1, 'Greta')`,
      [standIns],
    );
    await before.query(`insert into boards (person, stand_ins) values ('wren', $1)`, [standIns]);
    const opened = await openEmbedded(await before.dumpDataDir('none'));
    await before.close();
    const written = {
      id: 'wren',
      roles: [],
      groups: [],
      profile: { activity: 'x' },
      enrolments: [{ course: 'induction', on: '2026-10-01', until: null }],
      completions: [{ item: 'ladder', on: '2026-10-02', score: 92 }],
    };
    expect(await readChange(opened.db, 'c')).toMatchObject({
      people: [{ before: null, after: written }],
      names: { before: { roles: [] }, after: { roles: [] } },
    });
    expect((await readChange(opened.db, 'c'))?.names?.before).toEqual({ roles: [] });
    expect((await readChange(opened.db, 'd'))?.names).toBeNull();
    for (const table of ['board_sets', 'boards']) {
      const { rows } = (await opened.db.execute(`select stand_ins from ${table}` as never)) as {
        rows: readonly unknown[];
      };
      expect(rows, table).toEqual([
        { stand_ins: ['guest', { person: 'wren' }, { madeUp: { id: 'm', name: 'M', facts: written } }] },
      ]);
    }
    const items = new Map((await readItems(opened.db)).map(({ item }) => [item.id as string, item]));
    expect(items.get('induction')).toMatchObject({
      kind: 'course',
      title: 'Induction',
      parent: 'site',
      published: false,
      address: '/courses/induction',
    });
    // Where an address is taken, or an id can't stand in one, another is found.
    expect(items.get('astro')).toMatchObject({ kind: 'course', title: 'Astrophotography' });
    const outline = outlineOf([...items.values()]);
    if ('problems' in outline) throw new Error(outline.problems.map(({ message }) => message).join('\n'));
    const ladder = outline.items.get(asId<ItemId>('ladder'));
    expect(ladder).toMatchObject({
      kind: 'activity',
      title: 'Ladder safety',
      published: false,
      activity: 'reading',
    });
    expect(outline.items.get(ladder?.within?.unit ?? asId(''))).toMatchObject({
      kind: 'unit',
      published: false,
    });
    const names = itemNamesIn(outline);
    expect(names.courses.map(({ name }) => name).toSorted()).toEqual([
      'Activities',
      'Astrophotography',
      'Induction',
      'Odd',
    ]);
    expect(names.activities.map(({ id }) => id as string).toSorted()).toEqual(['knots', 'ladder']);
    const [wren] = await readPeople(opened.db);
    expect(wren).toMatchObject({
      enrolments: [{ course: 'induction', on: '2026-10-01', until: null }],
      completions: [{ item: 'ladder', on: '2026-10-02', score: 92 }],
    });
    await opened.close();
  });

  it('has no more items than before where there were no such names', async () => {
    const before = await databaseOf(9);
    await before.query(
      `insert into items (id, kind, parent, rank, title, address) values ('site', 'site', null, 0, 'Site', null), ('home', 'page', 'site', 0, 'Home', '/')`,
    );
    const opened = await openEmbedded(await before.dumpDataDir('none'));
    await before.close();
    expect(await readItems(opened.db)).toHaveLength(2);
    await opened.close();
  });
});

describe('a site from before it had a language', () => {
  it('is English, and what was searched is found, by other forms of its words as well', async () => {
    const before = await databaseOf(21);
    await before.exec(
      `insert into items (id, kind, parent, rank, title, address) values ('site', 'site', null, 0, 'Site', null), ('home', 'page', 'site', 0, 'Home', '/');
       insert into settings (time_zone, share_key, passphrase_salt) values ('UTC', '00', '00');
       insert into search_texts (item, kind, text) values ('home', 'text', 'Telescopes on the hill')`,
    );
    const opened = await openEmbedded(await before.dumpDataDir('none'));
    await before.close();
    expect(await readSettings(opened.db)).toMatchObject({ language: 'en', letters: {} });
    expect(await readMatches(opened.db, 'telescope', 'en')).toMatchObject([{ item: 'home' }]);
    const { rows } = (await opened.db.execute(
      "select 1 from pg_indexes where indexname = 'search_words'" as never,
    )) as { rows: readonly unknown[] };
    expect(rows).toHaveLength(1);
    await opened.close();
  });
});
