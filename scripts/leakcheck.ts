/** The leak check over HTTP: a copy of the site is served by the real server, and asked as a browser or an app would ask. */
import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { larkfell } from '../demo/larkfell';
import { SESSION_COOKIE } from '../src/app/_http/session-cookie';
import type { PersonId } from '../src/core';
import {
  databaseIn,
  describeReport,
  fillCopy,
  importSite,
  plantMarks,
  Trivet,
  tryDoors,
} from '../src/services';
import { claimDataFolder } from './data-folder';
import { freePort } from './free-port.mjs';

/** Those of the demo with a story of their own; of another site, the first people of each sort. */
const DEMO_PEOPLE = [
  'greta',
  'marek',
  'odile',
  'tobin',
  'ines',
  'wren',
  'priya',
  'sunniva',
  'jonah',
  'lio',
  'edda',
  'basil',
];

function stop(sentence: string): never {
  console.error(`\n  ${sentence}\n`);
  process.exit(1);
}

async function openSource(): Promise<Trivet> {
  const { TRIVET_DATA: folder, TRIVET_DATABASE: database } = process.env;
  // What is served below is a copy.
  delete process.env.TRIVET_DATABASE;
  if (database) {
    const trivet = await Trivet.open(database);
    if (!trivet.hasSite) stop('The database holds no site.');
    return trivet;
  }
  if (!folder) {
    const trivet = await Trivet.open(null);
    const problems = await importSite(trivet, larkfell, 'The demo');
    if (problems.length > 0) stop(problems.join('\n  '));
    return trivet;
  }
  const claim = claimDataFolder(folder);
  if ('problem' in claim) stop(claim.problem);
  process.on('exit', claim.release);
  const trivet = await Trivet.open(databaseIn(folder));
  if (!trivet.hasSite) stop(`The data folder ${folder} holds no site.`);
  return trivet;
}

const now = new Date();
const source = await openSource();
const { state } = source;
const all = [...state.people.keys()];
const known = DEMO_PEOPLE.filter((id) => state.people.has(id as PersonId)) as PersonId[];
const named = process.argv
  .find((one) => one.startsWith('--as='))
  ?.slice('--as='.length)
  .split(',');
const people = process.argv.includes('--everyone')
  ? all
  : named
    ? all.filter((id) => named.includes(id))
    : known.length > 0
      ? known
      : all.slice(0, 12);
const planted = plantMarks(state, people, now);
const folder = mkdtempSync(join(tmpdir(), 'trivet-leak-check-'));
process.on('exit', () => rmSync(folder, { recursive: true, force: true }));
const copy = await Trivet.open(databaseIn(folder));
const testers = await fillCopy(copy, state, planted, people, now);
const { state: copied } = copy;
await copy.close();
await source.close();

const port = await freePort();
const server = spawn(process.execPath, ['--import', 'tsx', 'scripts/serve.ts'], {
  env: { ...process.env, PORT: String(port), TRIVET_DATA: folder, NODE_ENV: 'production' },
  stdio: ['ignore', 'pipe', 'inherit'],
});
process.on('exit', () => server.kill('SIGTERM'));
await new Promise<void>((resolve, reject) => {
  server.on('exit', (code) => reject(new Error(`The copy’s server stopped with code ${code}.`)));
  server.stdout.on('data', (part) => String(part).includes('Trivet is ready') && resolve());
});
server.removeAllListeners('exit');
console.log(`  Trying every door as ${testers.length} visitors …`);
const report = await tryDoors(copied, planted, testers, {
  knock: (request) => fetch(request),
  cookieName: SESSION_COOKIE,
  now,
  origin: `http://localhost:${port}`,
});
console.log(`\n  ${describeReport(report)}\n`);
process.exit(report.leaked > 0 ? 1 : 0);
