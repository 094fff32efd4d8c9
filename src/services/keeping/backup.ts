/** Everything of a site as one file (tar), made while the site is served. */

import { createHash } from 'node:crypto';
import type { Dirent } from 'node:fs';
import { open, readdir, stat } from 'node:fs/promises';
import { join, relative } from 'node:path';
import { setImmediate } from 'node:timers/promises';
import { type Pack, pack } from 'tar-stream';
import { siteTitleOf } from '@/core';
import { beginBaseBackup, endBaseBackup, letGoOfBackup } from '@/store';
import { Busy, databaseIn, type Trivet, theTime } from '../running';

/** What a backup begins with. */
export const BACKUP_FORMAT = 'trivet backup';
export const BACKUP_VERSION = 1;
export const HEAD = 'trivet-backup.json';
/** What it ends with: the SHA-256 of every file in it. A file without that is not whole. */
export const FOOT = 'trivet-backup-files.json';
/** What stands before the name of every file of the database. */
export const DATABASE = 'database/';

const PIECE = 256 * 1024;

// What PostgreSQL makes anew, by its manual; folders stay, empty.
const LEFT_OUT =
  /^(?:postmaster\.(?:pid|opts)|(?:pg_dynshmem|pg_notify|pg_replslot|pg_serial|pg_snapshots|pg_stat_tmp|pg_subtrans)\/.+|(?:.*\/)?pgsql_tmp.*)$/;
const IN_LOG = /^pg_wal\/.+$/;

/** A backup that is being made. */
export interface Backup {
  /** The file, as it comes. Whoever stops reading it has to destroy it. */
  readonly tar: Pack;
  /** About how long it will be, in bytes. */
  readonly size: number;
  /** Settles when all of it was read, or with why it was not made. */
  readonly made: Promise<void>;
}

const going = new WeakSet<Trivet>();

/** Begins a backup of the site in a data folder. There is one at a time; another one is {@link Busy}. */
export async function backUp(trivet: Trivet): Promise<Backup> {
  const { db, dataFolder } = trivet;
  if (dataFolder === null) throw new Error('What is in memory alone can’t be backed up.');
  if (going.has(trivet)) throw new Busy();
  going.add(trivet);
  const tar = pack();
  const folder = databaseIn(dataFolder);
  try {
    const size = (await filesBelow(folder)).reduce((sum, one) => sum + one.size, 0);
    await beginBaseBackup(db);
    const made = write(trivet, folder, tar).finally(async () => {
      await letGoOfBackup(db);
      going.delete(trivet);
    });
    made.catch((error: Error) => tar.destroy(error));
    return { tar, size, made };
  } catch (error) {
    await letGoOfBackup(db);
    going.delete(trivet);
    throw error;
  }
}

async function write(trivet: Trivet, folder: string, tar: Pack): Promise<void> {
  const hashes: Record<string, string> = {};
  const { outline } = trivet.state;
  const head = {
    format: BACKUP_FORMAT,
    version: BACKUP_VERSION,
    made: theTime().toISOString(),
    site: siteTitleOf(outline),
  };
  await addText(tar, HEAD, JSON.stringify(head, null, 2));
  const add = async ({ name, size }: FileThere) => {
    hashes[name] = await addFile(tar, join(folder, name), DATABASE + name, size);
  };
  const all = await filesBelow(folder);
  for (const one of await foldersBelow(folder))
    await addEntry(tar, { name: DATABASE + one, type: 'directory' }, []);
  for (const one of all) if (!LEFT_OUT.test(one.name) && !IN_LOG.test(one.name)) await add(one);
  const label = await endBaseBackup(trivet.db);
  hashes.backup_label = await addText(tar, `${DATABASE}backup_label`, label);
  // What was logged before it began is in the files already.
  const [, first = ''] = /^START WAL LOCATION: \S+ \(file ([0-9A-F]{24})\)/.exec(label) ?? [];
  for (const one of await filesBelow(folder)) {
    const [, segment = ''] = /^pg_wal\/([0-9A-F]{24})$/.exec(one.name) ?? [];
    if (segment !== '' && segment >= first) await add(one);
  }
  await addText(tar, FOOT, JSON.stringify({ files: hashes }));
  tar.finalize();
}

interface FileThere {
  /** Below the folder, with `/` between its parts. */
  readonly name: string;
  readonly size: number;
}

const entriesBelow = async (folder: string): Promise<readonly (Dirent & { readonly name: string })[]> =>
  (await readdir(folder, { recursive: true, withFileTypes: true })) as Dirent[];

const nameIn = (folder: string, entry: Dirent): string =>
  relative(folder, join(entry.parentPath ?? entry.path, entry.name)).replaceAll('\\', '/');

const foldersBelow = async (folder: string): Promise<readonly string[]> =>
  (await entriesBelow(folder))
    .filter((entry) => entry.isDirectory())
    .map((entry) => nameIn(folder, entry))
    .filter((name) => !LEFT_OUT.test(name))
    .toSorted();

/** The files that there are; what goes while one looks was not needed. */
async function filesBelow(folder: string): Promise<readonly FileThere[]> {
  const found: FileThere[] = [];
  for (const entry of await entriesBelow(folder)) {
    if (!entry.isFile()) continue;
    const name = nameIn(folder, entry);
    const there = await stat(join(folder, name)).catch(() => null);
    if (there) found.push({ name, size: there.size });
  }
  return found.toSorted((a, b) => (a.name < b.name ? -1 : 1));
}

interface Entry {
  readonly name: string;
  readonly size?: number;
  readonly type?: 'file' | 'directory';
}

/** Adds an entry with what it holds, as fast as it is read. Whoever hangs up is no longer waited for. */
async function addEntry(
  tar: Pack,
  entry: Entry,
  pieces: AsyncIterable<Uint8Array> | Iterable<Uint8Array>,
): Promise<void> {
  let wake = () => {};
  const hungUp = () => wake();
  tar.once('close', hungUp);
  const turn = () =>
    new Promise<void>((go) => {
      wake = go;
    });
  try {
    const stay = () => {
      if (tar.destroyed) throw new Error('Nobody reads the backup any more.');
    };
    let failed: Error | null = null;
    let done = false;
    const into = tar.entry({ mode: entry.type === 'directory' ? 0o700 : 0o600, ...entry }, (error) => {
      failed = error ?? null;
      done = true;
      wake();
    });
    if (entry.type !== 'directory') {
      into.on('drain', () => wake());
      for await (const piece of pieces) {
        stay();
        if (into.write(piece)) await setImmediate();
        else await turn();
      }
      into.end();
    }
    while (!done) {
      stay();
      await turn();
    }
    stay();
    if (failed) throw failed;
  } finally {
    tar.off('close', hungUp);
  }
}

/** Adds a short text; answers its SHA-256. */
async function addText(tar: Pack, name: string, text: string): Promise<string> {
  const bytes = Buffer.from(text);
  await addEntry(tar, { name, size: bytes.length }, [bytes]);
  return createHash('sha256').update(bytes).digest('hex');
}

/** Adds a file at the length that it had when it was found; one that became shorter is filled up, as the log knows of it. */
async function addFile(tar: Pack, path: string, name: string, size: number): Promise<string> {
  const hash = createHash('sha256');
  async function* pieces(): AsyncGenerator<Uint8Array> {
    const file = await open(path).catch(() => null);
    try {
      for (let at = 0; at < size; ) {
        const piece = Buffer.alloc(Math.min(PIECE, size - at));
        const read = file ? (await file.read(piece, 0, piece.length, at)).bytesRead : 0;
        const part = read === 0 ? piece : piece.subarray(0, read);
        hash.update(part);
        at += part.length;
        yield part;
      }
    } finally {
      await file?.close();
    }
  }
  await addEntry(tar, { name, size }, pieces());
  return hash.digest('hex');
}
