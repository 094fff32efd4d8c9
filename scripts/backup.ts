/** A backup, from the command line: by the server that runs, or by itself where none does. */
import { existsSync, renameSync, rmSync } from 'node:fs';
import { open } from 'node:fs/promises';
import type { Readable } from 'node:stream';
import { backUp, isOnServer, readEnvironment, Trivet } from '../src/services';
import { claimDataFolder } from './data-folder';
import { askForBackup } from './machine-door';
import { progress } from './progress';

function stop(lines: readonly string[]): never {
  for (const line of lines) console.error(`  ${line}`);
  process.exit(1);
}

/** Writes all of a stream beside its place, and puts it there once it is whole and on the disk. */
async function writeWhole(tar: Readable, size: number, to: string): Promise<number> {
  const part = `${to}.part`;
  rmSync(part, { force: true });
  const file = await open(part, 'wx', 0o600);
  const said = progress('Backed up', size);
  let written = 0;
  try {
    for await (const piece of tar) {
      await file.writeFile(piece);
      written += piece.length;
      said(written);
    }
    await file.sync();
  } catch (error) {
    rmSync(part, { force: true });
    throw error;
  } finally {
    await file.close();
  }
  renameSync(part, to);
  return written;
}

async function main(): Promise<void> {
  const [to, ...more] = process.argv.slice(2);
  if (to === undefined || more.length > 0)
    stop(['Say where to: npm run backup -- <file>', 'The file must not be there yet.']);
  const env = readEnvironment(process.env);
  if ('problems' in env) stop(env.problems);
  const { dataFolder, database } = env;
  if (isOnServer(database))
    stop([
      'What is on a PostgreSQL server is backed up by the server’s own programs: pg_dump, or pg_basebackup with its log.',
      'docs/operate.md says how. npm run site -- move brings it into a data folder.',
    ]);
  if (existsSync(to)) stop([`${to} is there already. Choose another name, or take it away first.`]);
  if (!existsSync(database))
    stop([`The data folder ${dataFolder} holds no site. Name another one with TRIVET_DATA.`]);
  const claim = claimDataFolder(dataFolder);
  let written: number;
  if ('problem' in claim) {
    const asked = await askForBackup(dataFolder);
    if ('problem' in asked) stop([claim.problem, asked.problem]);
    written = await writeWhole(asked.tar, asked.size, to);
  } else {
    process.on('exit', claim.release);
    const trivet = await Trivet.open(database, 0, dataFolder);
    try {
      const { tar, size, made } = await backUp(trivet);
      // Its failure is that of the stream, which is told.
      made.catch(() => undefined);
      written = await writeWhole(tar, size, to);
      await made;
    } finally {
      await trivet.close();
    }
  }
  console.log(`
  ${to} holds everything: pages, files, people with what they sign in with, gates, orders, letters (${Math.ceil(written / 1e6)} MB).
  Keep it as safe as the site itself. npm run restore -- ${to} brings it back.
`);
}

main().catch((error: Error) => stop([`The backup was not made: ${error.message}`]));
