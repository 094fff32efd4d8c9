/**
 * `npm run cluster`: the demo on three processes, with a PostgreSQL server of its own behind them and nginx before them, to look
 * at how they go together. `-- --keep` keeps its data.
 */
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { hasNginx, startBalancer } from './balancer.mjs';
import { postgresPrograms, startPostgres } from './postgres.mjs';
import { build, install, runScript } from './setup.mjs';
import { nameTill, startTill } from './stand-in.mjs';

const PROCESSES = 3;

function stop(sentence) {
  console.error(`\n  ${sentence}\n`);
  process.exit(1);
}

process.env.TRIVET_DATA ??= '.data-cluster';
process.env.NODE_ENV = 'production';
if (process.env.TRIVET_DATABASE !== undefined)
  stop('The cluster has a PostgreSQL server of its own. Run this without TRIVET_DATABASE.');
if (postgresPrograms() === null)
  stop('PostgreSQL 15 or later is not installed. On Debian: apt-get install postgresql');
const keep = process.argv.includes('--keep');
const port = Number(process.env.PORT ?? 3000);
const ports = Array.from({ length: PROCESSES }, (_, at) => port + 1 + at);
const folder = process.env.TRIVET_DATA;
const balanced = hasNginx();
process.env.TRIVET_URL ??= `http://localhost:${balanced ? port : ports[0]}`;
process.env.TRIVET_PROXY ??= '127.0.0.1';
const standsIn = nameTill();

install();
build();
const mark = join(folder, 'is-a-demo');
if (existsSync(folder) && !existsSync(mark))
  stop(`The folder ${folder} holds something that is no demo. Name another one with TRIVET_DATA.`);
if (!keep) rmSync(folder, { recursive: true, force: true });
mkdirSync(folder, { recursive: true });
writeFileSync(mark, 'Everybody here has the password larkfell-demo. This folder may be erased.\n');
const postgres = await startPostgres(join(folder, 'postgres'), { lasting: true });
postgres.createUnlessThere('trivet');
process.env.TRIVET_DATABASE = postgres.url('trivet');
runScript('scripts/load-demo.ts', ['--keep']);
if (standsIn) startTill(['.next/till.mjs']);

let ending = false;
const servers = new Map();

/** Starts a process; one that is killed is started again. */
function serve(own) {
  const server = spawn(process.execPath, ['.next/serve.mjs'], {
    env: { ...process.env, PORT: String(own) },
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  servers.set(own, server);
  server.on('exit', (code, signal) => {
    if (ending) return;
    console.log(`  The process on port ${own} ended (${signal ?? code}). It is started again.`);
    setTimeout(() => serve(own), 500);
  });
}
for (const own of ports) serve(own);
const balancer = balanced ? startBalancer(join(folder, 'nginx'), port, ports) : null;

const answers = async (own) => {
  for (;;) {
    const { ok } = await fetch(`http://127.0.0.1:${own}/api/ready`).catch(() => ({ ok: false }));
    if (ok) return;
    await new Promise((later) => setTimeout(later, 200));
  }
};
await Promise.all(ports.map(answers));
console.log(`
  The demo runs on ${PROCESSES} processes, each by itself at
${ports.map((own) => `    http://localhost:${own}/   process ${servers.get(own).pid}`).join('\n')}
  ${balanced ? `and all of them behind nginx at http://localhost:${port}/` : 'nginx is not installed, so nothing stands before them.'}
  The database is at ${postgres.url('trivet')}

  Sign in on one (greta@larkfell.example, larkfell-demo), put something live on another, and ask the third.
  Kill one by its number: what it was asked meanwhile goes to the others, and it is started again.
`);

async function end() {
  if (ending) process.exit(1);
  ending = true;
  const ended = [...servers.values()].map((server) => new Promise((done) => server.once('exit', done)));
  for (const server of servers.values()) server.kill('SIGTERM');
  balancer?.kill('SIGTERM');
  await Promise.all(ended);
  await postgres.stop();
  process.exit(0);
}
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, end);
