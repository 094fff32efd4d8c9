/**
 * Three processes on one PostgreSQL server behind nginx, changed from all sides while processes are killed and held, connections
 * cut and the database restarted. An oracle holds every answer against what it may have been. Ends with 1 if one was wrong, or if
 * anything is lost that was answered.
 */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as passed } from 'node:timers/promises';
import { importSite, Trivet } from '../src/services';
import { hasNginx, startBalancer } from './balancer.mjs';
import type { Register } from './faults/oracle';
import { Processes } from './faults/processes';
import { faultySite, MARK } from './faults/site';
import { anyOf, moment, Writers } from './faults/writers';
import { freePort } from './free-port.mjs';
import { startPostgres } from './postgres.mjs';

const READERS = 6;
const count = Number(process.argv.find((one) => /^\d+$/.test(one)) ?? 200);
const folder = mkdtempSync(join(tmpdir(), 'trivet-faults-'));

const say = (line: string) => console.log(`  ${line}`);

// Where whoever the server runs as can go, wherever this project is.
const postgres = await startPostgres(mkdtempSync(join(tmpdir(), 'trivet-postgres-')), { lasting: true });
postgres.create('trivet');
const first = await Trivet.open(postgres.url('trivet'));
const problems = await importSite(first, faultySite, 'The fault test');
await first.close();
if (problems.length > 0) throw new Error(problems.join('\n'));

const balancerPort = await freePort();
const ports = await Promise.all([freePort(), freePort(), freePort()]);
const processes = new Processes(
  postgres,
  {
    NODE_ENV: 'production',
    TRIVET_DATABASE: postgres.url('trivet'),
    TRIVET_DATA: folder,
    TRIVET_URL: `http://localhost:${balancerPort}`,
    TRIVET_PROXY: '127.0.0.1',
  },
  ports,
);
const balancer = hasNginx() ? startBalancer(join(folder, 'nginx'), balancerPort, ports) : null;
process.on('exit', () => {
  balancer?.kill('SIGTERM');
  for (const { child } of processes.all) child.kill('SIGKILL');
});
await processes.ready();

const writers = new Writers(processes);
const changing = await writers.begin();

/** Where readers ask: each process, and the balancer before them. */
const doors = [
  ...processes.all.map(({ origin }, at) => ({ origin, by: `process ${at + 1}` })),
  ...(balancer ? [{ origin: `http://127.0.0.1:${balancerPort}`, by: 'the balancer' }] : []),
];
const heard = { open: 0, closed: 0, 'not now': 0, nothing: 0 };

let reading = true;
async function read(): Promise<void> {
  while (reading) {
    // What changed last is asked for most.
    const { looked } = writers;
    const { register, path, cookie } = Math.random() < 0.3 ? (looked.at(-1) ?? anyOf(looked)) : anyOf(looked);
    const { origin, by } = anyOf(doors);
    const asked = moment();
    try {
      const response = await fetch(origin + path, { headers: { cookie }, redirect: 'manual' });
      const text = await response.text();
      if (response.status >= 500) heard['not now'] += 1;
      else {
        const value = text.includes(MARK) ? 'open' : 'closed';
        heard[value] += 1;
        register.read({ asked, answered: moment(), value, by });
      }
    } catch {
      heard.nothing += 1;
    }
    await passed(5);
  }
}
const readers = Array.from({ length: READERS }, read);

const FAULTS: Readonly<Record<string, () => Promise<void>>> = {
  'a process killed': () => processes.kill(anyOf(processes.all)),
  'another process killed': () => processes.kill(anyOf(processes.all)),
  'a process that stood still': () => processes.hold(anyOf(processes.all), 300 + Math.random() * 2700),
  'connections cut': () => processes.cutConnections(),
  'the database restarted': () => processes.restartDatabase('SIGINT'),
  'the database crashed': () => processes.restartDatabase('SIGQUIT'),
};
const names = Object.keys(FAULTS);
const start = moment();
for (let at = 0; at < count; at += 1) {
  await FAULTS[names[at % names.length] ?? '']?.();
  await passed(Math.random() * 1500);
  if ((at + 1) % 20 === 0) say(`${at + 1} faults of ${count}`);
}

// Whoever was writing ends, and everything is asked for once more when nothing changes any longer.
await changing.stop();
reading = false;
await Promise.all(readers);
await processes.ready();
await passed(1500);
const afterwards: string[] = [];
for (const { register, path, cookie } of writers.looked)
  for (const { origin, by } of doors) {
    const response = await fetch(origin + path, { headers: { cookie }, redirect: 'manual' });
    const value = (await response.text()).includes(MARK) ? 'open' : 'closed';
    if (response.status >= 500 || value !== register.value)
      afterwards.push(
        `${register.name} is ${value} (${response.status}) at ${by} in the end, and was ${register.value} last.`,
      );
  }

const registers = [...new Set(writers.looked.map(({ register }) => register))];
const wrong = [
  ...registers.flatMap((one: Register) => one.wrongs()),
  ...afterwards,
  ...(await writers.lost()),
];
const total = Object.values(heard).reduce((sum, one) => sum + one, 0);
say(`${count} faults (${names.join(', ')}) in ${((moment() - start) / 1000).toFixed(0)} s.`);
say(
  `${writers.counts.answered} changes answered and ${writers.counts.refused} refused; of ${writers.counts.done + writers.counts.undone} without an answer ${writers.counts.done} were done.`,
);
say(
  `${total} pages asked for: ${heard.open} open, ${heard.closed} closed, ${heard['not now']} not now, ${heard.nothing} without an answer.`,
);
for (const one of wrong.slice(0, 20)) say(`WRONG: ${one}`);
say(wrong.length === 0 ? 'Nothing was wrong, and nothing is lost.' : `${wrong.length} were wrong.`);

balancer?.kill('SIGTERM');
await processes.end();
await postgres.clear();
rmSync(folder, { recursive: true, force: true });
process.exit(wrong.length === 0 ? 0 : 1);
