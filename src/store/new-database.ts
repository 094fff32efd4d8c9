/**
 * What a new database begins as: PostgreSQL's own files and Trivet's tables, made when Trivet is built. Making them takes
 * several times as long as unpacking them. Where nothing was made, or something else than would be made now, a database is
 * made from nothing.
 */
import { createHash } from 'node:crypto';
import {
  createReadStream,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
} from 'node:fs';
import { writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { createGunzip } from 'node:zlib';
import { extract } from 'tar-stream';

export const MIGRATIONS = 'drizzle';

/** Where it is kept: another file for other migrations, and for another PostgreSQL. */
export function newDatabaseFile(): string {
  const hash = createHash('sha256').update(readFileSync('node_modules/@electric-sql/pglite/package.json'));
  for (const name of readdirSync(MIGRATIONS)
    .filter((one) => one.endsWith('.sql'))
    .sort())
    hash.update(name).update(readFileSync(join(MIGRATIONS, name)));
  return `.next/new-database-${hash.digest('hex').slice(0, 16)}.tar.gz`;
}

/** Where there is one to begin with in memory; null where none was made. */
export function newDatabase(): string | null {
  const file = newDatabaseFile();
  return existsSync(file) ? file : null;
}

/** Unpacks one where there is no folder yet. It is there whole or not at all, whatever happens meanwhile. */
export async function beginFolder(folder: string): Promise<void> {
  const file = newDatabaseFile();
  if (existsSync(folder) || !existsSync(file)) return;
  // What was begun and not ended, if anything, is in the way of nobody else: a data folder belongs to one process.
  const unpacked = `${folder}-begun`;
  rmSync(unpacked, { recursive: true, force: true });
  const tar = extract();
  const read = pipeline(createReadStream(file), createGunzip(), tar);
  for await (const entry of tar) {
    const path = join(unpacked, entry.header.name);
    if (entry.header.type === 'directory') {
      mkdirSync(path, { recursive: true, mode: 0o700 });
      entry.resume();
    } else {
      mkdirSync(dirname(path), { recursive: true, mode: 0o700 });
      await writeFile(path, entry, { mode: 0o600 });
    }
  }
  await read;
  renameSync(unpacked, folder);
}
