import { readdirSync, readFileSync } from 'node:fs';
import { PGlite } from '@electric-sql/pglite';
import { describe, expect, it } from 'vitest';
import { openDatabase, readChange, readItems, readPeople, readPolicies, readSettings } from '.';

/** Runs the first migrations as they are, and notes them as the migrator would. */
async function databaseOf(migrations: number): Promise<PGlite> {
  const client = new PGlite();
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
    const opened = await openDatabase(await before.dumpDataDir('none'));
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
    await before.query('insert into people_changes (id, by, summary, people) values ($1, $2, $3, $4)', [
      'c',
      'Greta',
      'Marek changed',
      JSON.stringify([{ before: { id: 'marek', desk: false }, after: { id: 'marek', desk: true } }]),
    ]);
    const opened = await openDatabase(await before.dumpDataDir('none'));
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
