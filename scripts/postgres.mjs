/** A PostgreSQL server of one’s own for a while, from what Debian has installed: for tests, and to look at a site on several processes. */
import { spawn, spawnSync } from 'node:child_process';
import { chownSync, existsSync, mkdirSync, openSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { setTimeout as passed } from 'node:timers/promises';
import { freePort } from './free-port.mjs';

const VERSIONS = '/usr/lib/postgresql';
const OLDEST = 15;

/** Where the programs of the newest version are; null where none is installed that is new enough. */
export function postgresPrograms() {
  const versions = existsSync(VERSIONS) ? readdirSync(VERSIONS).map(Number) : [];
  const newest = Math.max(
    0,
    ...versions.filter((version) => existsSync(join(VERSIONS, String(version), 'bin/postgres'))),
  );
  return newest >= OLDEST ? join(VERSIONS, String(newest), 'bin') : null;
}

/** The server refuses to run as root: there it is the user that Debian made for it. */
function user() {
  if (process.getuid?.() !== 0) return {};
  const line = readFileSync('/etc/passwd', 'utf8')
    .split('\n')
    .find((one) => one.startsWith('postgres:'));
  const [, , uid, gid] = (line ?? '').split(':').map(Number);
  if (!uid || !gid) throw new Error('There is no user postgres for a PostgreSQL server to run as.');
  return { uid, gid };
}

/**
 * Makes a server in a folder, or starts the one that is there, on a port of this machine alone. `url` makes the address of a
 * database; `create` makes one, from another if it is said which; `stop` ends the server and can be told to leave it to `start`
 * again. With `lasting` it survives a power cut, which takes tests three times as long.
 */
export async function startPostgres(folder, { port, lasting = false } = {}) {
  const programs = postgresPrograms();
  if (programs === null) throw new Error(`PostgreSQL ${OLDEST} or later is not installed.`);
  const as = user();
  const at = resolve(folder);
  const data = join(at, 'data');
  mkdirSync(at, { recursive: true });
  if (as.uid) chownSync(at, as.uid, as.gid);
  const run = (program, args) => {
    const { status, stderr } = spawnSync(join(programs, program), args, { ...as, cwd: at, encoding: 'utf8' });
    if (status !== 0) throw new Error(`${program}: ${stderr}`);
  };
  if (!existsSync(data))
    run('initdb', ['-D', data, '-U', 'trivet', '-A', 'trust', '-E', 'UTF8', '--locale=C.UTF-8', '--no-sync']);
  const chosen = port ?? (await freePort());
  const where = ['-h', '127.0.0.1', '-p', String(chosen), '-U', 'trivet'];
  const settings = [
    'listen_addresses=127.0.0.1',
    `port=${chosen}`,
    `unix_socket_directories=`,
    'max_connections=200',
    ...(lasting ? [] : ['fsync=off', 'synchronous_commit=off', 'full_page_writes=off']),
  ];
  let server = null;
  const answers = () => spawnSync(join(programs, 'pg_isready'), [...where, '-q']).status === 0;
  const start = async () => {
    const log = openSync(join(at, 'log'), 'a');
    server = spawn(join(programs, 'postgres'), ['-D', data, ...settings.flatMap((one) => ['-c', one])], {
      ...as,
      cwd: at,
      stdio: ['ignore', log, log],
    });
    for (let tries = 0; tries < 300; tries += 1) {
      if (server.exitCode !== null) break;
      if (answers()) return;
      await passed(100);
    }
    throw new Error(
      `The PostgreSQL server did not start: ${readFileSync(join(at, 'log'), 'utf8').slice(-500)}`,
    );
  };
  const stop = async (signal = 'SIGINT') => {
    if (server === null || server.exitCode !== null || server.signalCode !== null) return;
    const ended = new Promise((done) => server.once('exit', done));
    server.kill(signal);
    await ended;
  };
  // However this program ends, the server ends with it.
  process.on('exit', () => server?.kill('SIGINT'));
  await start();
  return {
    port: chosen,
    url: (name) => `postgres://trivet@127.0.0.1:${chosen}/${name}`,
    create: (name, from = 'template0') => run('createdb', [...where, '-T', from, name]),
    createUnlessThere: (name) => {
      const { stdout } = spawnSync(
        join(programs, 'psql'),
        [...where, '-Atc', 'select datname from pg_database', 'postgres'],
        {
          encoding: 'utf8',
        },
      );
      if (!stdout.split('\n').includes(name)) run('createdb', [...where, '-T', 'template0', name]);
    },
    drop: (name) => run('dropdb', [...where, '--force', '--if-exists', name]),
    /** Runs a program of PostgreSQL’s against it. */
    run: (program, args) => run(program, [...where, ...args]),
    start,
    stop,
    /** Ends it, and takes everything away that it held. */
    clear: async () => {
      await stop();
      rmSync(at, { recursive: true, force: true });
    },
  };
}
