/**
 * `npm run bench -- several`: one site on one, two and three processes with a PostgreSQL server, beside one process with its own
 * database. Visitors, processes and server share one machine, so that what they take from one another is in the ratios.
 */
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Processes } from '../scripts/faults/processes';
import { faultySite, memberMail, OWNER, PASSWORD } from '../scripts/faults/site';
import { freePort } from '../scripts/free-port.mjs';
import { startPostgres } from '../scripts/postgres.mjs';
import { nobody, type Policy, signedIn } from '../src/core';
import { databaseIn, importSite, Trivet } from '../src/services';
import { rate, type Target } from './serve';

const FOLDER = mkdtempSync(join(tmpdir(), 'trivet-several-'));
const RATE_MS = 3000;
/** So long nothing is counted: what runs for the first time runs slowly. */
const WARM_MS = 1500;
const ROUNDS = 60;

const load = async (where: string): Promise<void> => {
  const trivet = await Trivet.open(where);
  const problems = await importSite(trivet, faultySite, 'The bench');
  await trivet.close();
  if (problems.length > 0) throw new Error(problems.join('\n'));
};

const cookieAt = async (origin: string, email: string): Promise<string> => {
  const answer = await fetch(`${origin}/sign-in`, {
    method: 'POST',
    redirect: 'manual',
    body: new URLSearchParams({ email, password: PASSWORD }),
  });
  return answer.headers.getSetCookie()[0]?.split(';')[0] ?? '';
};

/** Pages a second from all processes at once. */
const together = async (processes: Processes, target: Target, ms = RATE_MS): Promise<number> =>
  (await Promise.all(processes.all.map(({ port }) => rate(port, target, ms)))).reduce(
    (sum, one) => sum + one,
    0,
  );

async function measured(
  name: string,
  processes: Processes,
  first?: readonly number[],
): Promise<readonly number[]> {
  await processes.ready();
  const [{ origin } = { origin: '' }] = processes.all;
  const cookie = await cookieAt(origin, memberMail(0));
  const targets: readonly Target[] = [
    { path: '/', status: 200 },
    { path: '/members', status: 200, cookie },
    { path: '/me', status: 200, cookie },
  ];
  for (const target of targets) await together(processes, target, WARM_MS);
  const rates: number[] = [];
  for (const target of targets) rates.push(await together(processes, target));
  const told = rates.map((one, at) => {
    const ratio = first ? ` (${(one / (first[at] ?? 1)).toFixed(2)})` : '';
    return `${one.toFixed(0)}${ratio}`.padStart(16);
  });
  console.log(`  ${name.padEnd(38)}${told.join('')}`);
  return rates;
}

/** How long it takes until every other process answers by what one has put live, in milliseconds, while pages are asked for. */
async function spreading(processes: Processes): Promise<readonly number[]> {
  const [first, ...others] = processes.all.map(({ origin }) => origin);
  if (first === undefined) return [];
  const owner = await cookieAt(first, OWNER);
  const member = await cookieAt(first, memberMail(1));
  const desk = async <T>(method: string, path: string, body?: unknown): Promise<T> => {
    const answer = await fetch(`${first}/desk/api/${path}`, {
      method,
      headers: { cookie: owner, origin: first, 'content-type': 'application/json' },
      ...(body !== undefined && { body: JSON.stringify(body) }),
    });
    if (!answer.ok) throw new Error(`${path} answered ${answer.status}.`);
    return answer.json() as Promise<T>;
  };
  let asking = true;
  const visitors = processes.all.map(async ({ port }) => {
    while (asking) await rate(port, { path: '/members', status: 200, cookie: member }, 500);
  });
  const took: number[] = [];
  for (let round = 0; round < ROUNDS; round += 1) {
    const open = round % 2 === 0;
    const { draft, live } = await desk<{
      draft: { policy: Policy; version: number };
      live: { policy: Policy; revision: number };
    }>('GET', 'draft');
    const gates = live.policy.gates.map((gate) =>
      gate.id === 'board' ? { ...gate, who: open ? signedIn : nobody } : gate,
    );
    const { version } = await desk<{ version: number }>('PUT', 'draft', {
      version: draft.version,
      policy: { ...live.policy, gates },
    });
    await desk('POST', 'live', { version, revision: live.revision });
    const put = performance.now();
    await Promise.all(
      others.map(async (origin) => {
        const wanted = open ? 200 : 404;
        for (let status = 0; status !== wanted; )
          ({ status } = await fetch(`${origin}/board`, { headers: { cookie: member }, redirect: 'manual' }));
      }),
    );
    took.push(performance.now() - put);
  }
  asking = false;
  await Promise.all(visitors);
  return took.toSorted((a, b) => a - b);
}

const postgres = await startPostgres(mkdtempSync(join(tmpdir(), 'trivet-postgres-')), { lasting: true });
postgres.create('trivet');
await load(postgres.url('trivet'));
const own = join(FOLDER, 'own');
mkdirSync(own);
await load(databaseIn(own));

/** Processes that serve for as long as a work goes on. */
async function serving<T>(
  count: number,
  env: Readonly<Record<string, string>>,
  work: (processes: Processes) => Promise<T>,
): Promise<T> {
  const ports = await Promise.all(Array.from({ length: count }, freePort));
  const all = { NODE_ENV: 'production', TRIVET_DATA: FOLDER, ...env };
  const processes = new Processes(postgres, all, ports, 'one clock');
  try {
    return await work(processes);
  } finally {
    await processes.end();
  }
}

const onServer = { TRIVET_DATABASE: postgres.url('trivet') };
try {
  console.log(
    '\nPages a second: kept for guests, kept for members, the own account (of one process with its own database)',
  );
  const alone = await serving(1, { TRIVET_DATA: own }, (processes) =>
    measured('one process with its own database', processes),
  );
  for (const count of [1, 2, 3])
    await serving(count, onServer, (processes) =>
      measured(`${count} on a PostgreSQL server`, processes, alone),
    );
  console.log(
    '\nFrom put live on one process to the last of three answering by it, while each is asked for pages',
  );
  const took = await serving(3, onServer, async (processes) => {
    await processes.ready();
    return spreading(processes);
  });
  const at = (part: number) =>
    `${(took[Math.min(took.length - 1, Math.floor(took.length * part))] ?? 0).toFixed(0)} ms`;
  console.log(
    `  half within ${at(0.5)}, 99 of 100 within ${at(0.99)}, all within ${at(1)} (aim: 99 of 100 within a second)\n`,
  );
} finally {
  await postgres.clear();
  rmSync(FOLDER, { recursive: true, force: true });
}
process.exit(0);
