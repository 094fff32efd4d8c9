/**
 * A site brought back from a backup: everything is unpacked and opened beside what is there, and then takes its place. Until
 * then nothing is changed; from then on, whoever opens the folder finds what was brought back, whatever happens meanwhile.
 */
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, renameSync, rmSync } from 'node:fs';
import { type FileHandle, open } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import type { Readable } from 'node:stream';
import { extract } from 'tar-stream';
import { z } from 'zod';
import { databaseIn, Trivet } from '../running';
import { BACKUP_FORMAT, BACKUP_VERSION, DATABASE, FOOT, HEAD } from './backup';

const head = z.object({
  format: z.literal(BACKUP_FORMAT),
  version: z.literal(BACKUP_VERSION),
  made: z.iso.datetime(),
  site: z.string(),
});
const foot = z.object({ files: z.record(z.string(), z.string().length(64)) });

const LARGEST_TEXT = 50_000_000;
const MOST_FILES = 200_000;

/** Why a file is no backup that can be brought back, in a sentence. Nothing was changed. */
export class NotRestored extends Error {}

export interface Restored {
  /** What the site is called, and when the backup was made. */
  readonly site: string;
  readonly made: Date;
  readonly items: number;
  readonly people: number;
}

const unpacking = (folder: string): string => join(folder, 'database-unpacked');
/** All of it is there, and has only to take its place. */
const waiting = (folder: string): string => join(folder, 'database-restored');

/**
 * Brings a backup back into a data folder that nobody else uses. What was there before stays beside it. `onProgress` is told
 * how many bytes were read.
 */
export async function restore(
  file: Readable,
  folder: string,
  onProgress: (bytes: number) => void = () => undefined,
): Promise<Restored> {
  const to = unpacking(folder);
  rmSync(to, { recursive: true, force: true });
  try {
    const { site, made } = await unpack(file, to, onProgress);
    // Opened once, so that what was written while it was made is in its place, and what can't be opened is found here.
    const trivet = await Trivet.open(to, 0).catch((error: Error) => {
      throw new NotRestored(`What is in this backup can’t be opened: ${error.message}`);
    });
    if (!trivet.hasSite) throw new NotRestored('There is no site in this backup.');
    const { outline, people } = trivet.state;
    const found = { items: outline.items.size, people: people.size };
    await trivet.close();
    rmSync(waiting(folder), { recursive: true, force: true });
    renameSync(to, waiting(folder));
    finishRestore(folder);
    return { site, made: new Date(made), ...found };
  } catch (error) {
    rmSync(to, { recursive: true, force: true });
    throw error;
  }
}

/** Puts a backup that was brought back whole in its place, if one waits for it: whoever takes a data folder into use asks first. */
export function finishRestore(folder: string): void {
  if (!existsSync(waiting(folder))) return;
  const place = databaseIn(folder);
  if (existsSync(place)) renameSync(place, join(folder, freeName(folder)));
  renameSync(waiting(folder), place);
}

/** "database-before-1", or the first such name that is free. */
function freeName(folder: string): string {
  for (let count = 1; ; count++) {
    const name = `database-before-${count}`;
    if (!existsSync(join(folder, name))) return name;
  }
}

async function unpack(
  file: Readable,
  to: string,
  onProgress: (bytes: number) => void,
): Promise<z.infer<typeof head>> {
  const tar = extract();
  let read = 0;
  file.on('data', (piece: Buffer) => {
    read += piece.length;
    onProgress(read);
  });
  // What goes wrong while it is read is what whoever goes through the entries gets.
  file.once('error', (error) => tar.destroy(error));
  file.pipe(tar);
  let first: z.infer<typeof head> | null = null;
  let told: z.infer<typeof foot> | null = null;
  const hashes = new Map<string, string>();
  try {
    for await (const entry of tar) {
      const { name, type, size = 0 } = entry.header;
      if (told) throw new NotRestored('Something stands behind the end of this backup. It was changed.');
      if (first === null) {
        first = name === HEAD ? (head.safeParse(await jsonOf(entry, size)).data ?? null) : null;
        if (first === null) throw new NotRestored('This file is no backup of Trivet’s, or of a newer one.');
        continue;
      }
      if (name === FOOT) {
        told = foot.safeParse(await jsonOf(entry, size)).data ?? null;
        if (told === null) throw new NotRestored('The end of this backup can’t be read.');
        continue;
      }
      const path = pathIn(name);
      if (path === null || (type !== 'file' && type !== 'directory'))
        throw new NotRestored(
          `This backup holds “${name.slice(0, 100)}”, which belongs in none. Nothing was brought back.`,
        );
      if (hashes.size >= MOST_FILES) throw new NotRestored('This backup holds too many files.');
      if (type === 'directory') {
        mkdirSync(join(to, path), { recursive: true, mode: 0o700 });
        entry.resume();
        continue;
      }
      if (hashes.has(path)) throw new NotRestored(`This backup holds ${path} twice.`);
      hashes.set(path, await writeOut(entry, join(to, path)));
    }
  } catch (error) {
    if (error instanceof NotRestored) throw error;
    throw new NotRestored(`This file can’t be read as a backup: ${(error as Error).message}`);
  } finally {
    file.destroy();
  }
  if (first === null) throw new NotRestored('This file is empty.');
  if (told === null) throw new NotRestored('This backup is not whole: its end is missing. Make it again.');
  for (const [path, hash] of Object.entries(told.files))
    if (hashes.get(path) !== hash)
      throw new NotRestored(`${path} in this backup is not what was written. Take another one.`);
  if (hashes.size !== Object.keys(told.files).length)
    throw new NotRestored('This backup holds files that it does not tell of. It was changed.');
  return first;
}

/** Where below the database's folder something belongs; null for what belongs nowhere there. */
function pathIn(name: string): string | null {
  if (!name.startsWith(DATABASE)) return null;
  const path = name.slice(DATABASE.length).replace(/\/$/, '');
  return /^(?:[A-Za-z0-9_][\w.-]*\/)*[A-Za-z0-9_][\w.-]*$/.test(path) && path.length < 300 ? path : null;
}

async function jsonOf(entry: AsyncIterable<Uint8Array>, size: number): Promise<unknown> {
  if (size > LARGEST_TEXT) throw new NotRestored('What this backup says of itself is too long.');
  const pieces: Uint8Array[] = [];
  for await (const piece of entry) pieces.push(piece);
  try {
    return JSON.parse(Buffer.concat(pieces).toString());
  } catch {
    return null;
  }
}

/** Writes an entry to a file; answers its SHA-256. */
async function writeOut(entry: AsyncIterable<Uint8Array>, path: string): Promise<string> {
  const hash = createHash('sha256');
  mkdirSync(dirname(path), { recursive: true, mode: 0o700 });
  let file: FileHandle | null = null;
  try {
    file = await open(path, 'wx', 0o600);
    for await (const piece of entry) {
      hash.update(piece);
      await file.writeFile(piece);
    }
    await file.sync();
  } finally {
    await file?.close();
  }
  return hash.digest('hex');
}
