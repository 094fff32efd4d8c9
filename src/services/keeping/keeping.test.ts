/** Backups made while a site is changed, brought back elsewhere; and files that are none. */
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, mkdtempSync, readdirSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { buffer } from 'node:stream/consumers';
import { extract, type Headers, pack } from 'tar-stream';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { asId, type PersonId } from '@/core';
import { readPasswordHashes } from '@/store';
import {
  administratorOf,
  Busy,
  backUp,
  changeItem,
  databaseIn,
  finishRestore,
  importSite,
  NotRestored,
  READY_MADE,
  restore,
  Trivet,
} from '..';
import { siteAsFile } from '../site-file';
import { now } from '../testing';

const root = mkdtempSync(join(tmpdir(), 'trivet-keeping-'));
const start = { title: 'Hazel & Co', timeZone: 'Europe/Stockholm', today: '2026-11-20' };
const una = {
  id: 'una',
  name: 'Una Fairweather',
  email: 'una@hazel.example',
  desk: { right: 'owner' as const, branch: null },
  roles: ['colleague'],
  password: 'under the stairs',
};
let trivet: Trivet;
let whole: Buffer;

let folders = 0;
const fresh = (): string => {
  folders += 1;
  return join(root, String(folders));
};

const tarOf = async (): Promise<Buffer> => {
  const { tar, made } = await backUp(trivet);
  const bytes = await buffer(tar);
  await made;
  return bytes;
};

beforeAll(async () => {
  const folder = fresh();
  mkdirSync(folder);
  trivet = await Trivet.open(databaseIn(folder), 0, folder);
  const problems = await importSite(trivet, { ...READY_MADE.clients.site(start), people: [una] }, 'Una');
  expect(problems).toEqual([]);
  whole = await tarOf();
}, 60_000);
afterAll(async () => {
  await trivet.close();
  rmSync(root, { recursive: true, force: true });
});

/** The site of a folder as a file, with what people sign in with. */
async function siteIn(folder: string) {
  const opened = await Trivet.open(databaseIn(folder), 0, folder);
  try {
    const hashes = await readPasswordHashes(opened.db, [asId<PersonId>('una')]);
    return { site: await siteAsFile(opened, 'people'), hashes };
  } finally {
    await opened.close();
  }
}

describe('a backup', () => {
  it('brings everything back as it was, with what people sign in with', async () => {
    const folder = fresh();
    mkdirSync(folder);
    const told = await restore(Readable.from([whole]), folder);
    expect(told).toMatchObject({ site: 'Hazel & Co', people: 1 });
    const back = await siteIn(folder);
    expect(back.site).toEqual(await siteAsFile(trivet, 'people'));
    expect(back.hashes).toEqual(await readPasswordHashes(trivet.db, [asId<PersonId>('una')]));
    expect(readdirSync(folder)).toEqual(['database']);
  }, 60_000);

  it('is whole though the site is changed while it is made', async () => {
    const person = trivet.state.people.get(asId<PersonId>('una'));
    const administrator = person && administratorOf({ person, facts: person.facts, session: 'here' });
    if (!administrator) throw new Error('Una may not use the desk.');
    const { tar, made } = await backUp(trivet);
    const bytes = buffer(tar);
    let changes = 0;
    let going = true;
    const done = made.finally(() => {
      going = false;
    });
    // Every change writes the title of two items and its words, in one transaction or two; each is there or not.
    while (going) {
      changes += 1;
      const answer = await changeItem(
        trivet,
        administrator,
        { kind: 'rename', item: 'team', title: `Team ${changes}` },
        now,
      );
      expect(answer.kind).toBe('done');
    }
    await done;
    expect(changes).toBeGreaterThan(5);
    const folder = fresh();
    mkdirSync(folder);
    await restore(Readable.from([await bytes]), folder);
    const { site } = await siteIn(folder);
    const title = site.items.find(({ id }) => id === 'team')?.title ?? '';
    const last = Number(/^Team (\d+)$/.exec(title)?.[1]);
    // It is the site at its end, and not as it was when it began.
    expect(last).toBeGreaterThan(changes / 4);
    expect(last).toBeLessThanOrEqual(changes);
    await changeItem(trivet, administrator, { kind: 'rename', item: 'team', title: 'Team' }, now);
  }, 60_000);

  it('is made once at a time, and again after whoever asked for one hung up', async () => {
    const { tar, made } = await backUp(trivet);
    await expect(backUp(trivet)).rejects.toThrow(Busy);
    tar.destroy();
    await expect(made).rejects.toThrow('Nobody reads the backup any more.');
    expect((await tarOf()).length).toBeGreaterThan(1_000_000);
  }, 60_000);

  it('is not made of what is in memory alone', async () => {
    const inMemory = { db: trivet.db, dataFolder: null } as unknown as Trivet;
    await expect(backUp(inMemory)).rejects.toThrow('in memory alone');
  });
});

type Change = (header: Headers, body: Buffer) => { header: Headers; body: Buffer } | null;

/** As much of a backup as has to be told from what is none: what it is opened for comes after that. */
async function small(): Promise<Buffer> {
  const files = { PG_VERSION: '18\n', 'global/pg_control': 'x'.repeat(8192) };
  const hash = (text: string) => createHash('sha256').update(text).digest('hex');
  const to = pack();
  const bytes = buffer(to);
  const head = { format: 'trivet backup', version: 1, made: now.toISOString(), site: 'Hazel' };
  to.entry({ name: 'trivet-backup.json' }, JSON.stringify(head));
  to.entry({ name: 'database/global', type: 'directory' });
  for (const [name, text] of Object.entries(files)) to.entry({ name: `database/${name}` }, text);
  const hashes = Object.fromEntries(Object.entries(files).map(([name, text]) => [name, hash(text)]));
  to.entry({ name: 'trivet-backup-files.json' }, JSON.stringify({ files: hashes }));
  to.finalize();
  return bytes;
}

/** The backup with some of its entries as others, and others at the end. */
async function changed(change: Change, more: readonly (Headers & { body?: string })[] = []): Promise<Buffer> {
  const from = extract();
  const to = pack();
  const bytes = buffer(to);
  from.end(await small());
  for await (const entry of from) {
    const made = change(entry.header, await buffer(entry));
    if (made) to.entry({ ...made.header, size: made.body.length }, made.body);
  }
  for (const { body = '', ...header } of more) to.entry(header, body);
  to.finalize();
  return bytes;
}

const asItIs: Change = (header, body) => ({ header, body });
const withBody =
  (name: string, body: (before: Buffer) => Buffer): Change =>
  (header, before) => ({ header, body: header.name === name ? body(before) : before });

describe('what is no backup', () => {
  const FOOT = 'trivet-backup-files.json';
  const without =
    (name: string): Change =>
    (header, body) =>
      header.name === name ? null : { header, body };
  it.each<[string, () => Promise<Buffer> | Buffer, string]>([
    ['one that is whole and can’t be opened', small, 'can’t be opened'],
    ['nothing', () => Buffer.alloc(0), 'This file is empty.'],
    [
      'something else',
      () => Buffer.from('{"format": "trivet site"}'.repeat(100)),
      'can’t be read as a backup',
    ],
    ['one that was cut off', async () => (await small()).subarray(0, 5000), 'can’t be read as a backup'],
    ['one without an end', () => changed(without(FOOT)), 'its end is missing'],
    ['one of something else', () => changed(without('trivet-backup.json')), 'no backup of Trivet’s'],
    [
      'one of a newer Trivet',
      () =>
        changed(withBody('trivet-backup.json', () => Buffer.from('{"format":"trivet backup","version":2}'))),
      'or of a newer one',
    ],
    [
      'one in which a byte is another',
      () =>
        changed(
          withBody('database/PG_VERSION', (before) => {
            const other = Buffer.from(before);
            other[0] = 0x39;
            return other;
          }),
        ),
      'PG_VERSION in this backup is not what was written',
    ],
    [
      'one without one of its files',
      () => changed(without('database/global/pg_control')),
      'pg_control in this backup',
    ],
    [
      'one with something behind its end',
      () => changed(asItIs, [{ name: 'database/more', body: 'x' }]),
      'behind the end',
    ],
    [
      'one with a file too many',
      () =>
        changed((header, body) =>
          header.name === 'database/PG_VERSION'
            ? { header: { ...header, name: 'database/other' }, body }
            : { header, body },
        ),
      'PG_VERSION in this backup',
    ],
    ...(
      [
        '../../out',
        'database/../../out',
        '/etc/out',
        'database/a/./../../../out',
        'database/.hidden',
        'out',
      ] as const
    ).map((name): [string, () => Promise<Buffer>, string] => [
      `one with a file at ${name}`,
      () =>
        changed((header, body) =>
          header.name === FOOT ? { header: { ...header, name }, body } : { header, body },
        ),
      'which belongs in none',
    ]),
    [
      'one with a link',
      () =>
        changed((header, body) =>
          header.name === 'database/PG_VERSION'
            ? { header: { ...header, type: 'symlink', linkname: '/etc/passwd' }, body: Buffer.alloc(0) }
            : { header, body },
        ),
      'which belongs in none',
    ],
  ])('%s changes nothing', async (_, file, message) => {
    const folder = fresh();
    mkdirSync(join(folder, 'database'), { recursive: true });
    writeFileSync(join(folder, 'database', 'there'), 'before');
    const bytes = await file();
    const brought = restore(Readable.from([bytes]), folder);
    await expect(brought).rejects.toThrow(NotRestored);
    await expect(brought).rejects.toThrow(message);
    expect(readdirSync(folder)).toEqual(['database']);
    expect(readdirSync(join(folder, 'database'))).toEqual(['there']);
    expect(existsSync(join(root, 'out'))).toBe(false);
  });
});

it('takes its place when the folder is next used, if it was broken off just before', () => {
  const folder = fresh();
  for (const [name, holds] of [
    ['database', 'old'],
    ['database-before-1', 'older'],
    ['database-restored', 'new'],
  ] as const) {
    mkdirSync(join(folder, name), { recursive: true });
    writeFileSync(join(folder, name, holds), '');
  }
  // As it is when it was broken off between its two steps.
  renameSync(join(folder, 'database'), join(folder, 'database-before-2'));
  finishRestore(folder);
  finishRestore(folder);
  expect(readdirSync(folder).sort()).toEqual(['database', 'database-before-1', 'database-before-2']);
  expect(readdirSync(join(folder, 'database'))).toEqual(['new']);
});
