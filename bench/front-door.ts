/**
 * The visitor's side beside a bare server that sends the same bytes: documents that are kept, and the same made anew, in one
 * run, by turns. Shares are medians over rounds of what was measured one after the other, so that a machine that is busy with
 * something else is so for all three.
 */
import { type ChildProcess, fork } from 'node:child_process';
import { Agent, request } from 'node:http';
import { cookieOf, once } from './serve';

/** Where the benchmarks' site has a list of twenty posts, and a file of ten megabytes. */
export const TWENTY = '/twenty';
export const LARGE = '/files/bench-file/large.pdf';

interface Target {
  readonly path: string;
  readonly headers?: Readonly<Record<string, string>>;
  readonly status: number;
}

/** What one process with so many connections got. Rates a second; times in milliseconds. */
interface Load {
  readonly rate: number;
  readonly bytes: number;
  readonly p50: number;
  readonly p99: number;
}

/** What a target was given over some connections, by who gave it; shares are of the bare server's rate. */
export interface Row {
  readonly target: string;
  readonly connections: number;
  readonly plain: Load;
  readonly kept: Load & { readonly share: number };
  readonly anew: Load & { readonly share: number };
}

export interface Ports {
  readonly plain: number;
  readonly kept: number;
  readonly anew: number;
}

const reply = <Answer>(child: ChildProcess, message: object): Promise<Answer> =>
  new Promise((resolve, reject) => {
    child.once('message', (answer: Answer & { problem?: string }) =>
      answer.problem === undefined ? resolve(answer) : reject(new Error(answer.problem)),
    );
    child.send(message);
  });

interface Whole {
  readonly path: string;
  readonly status: number;
  readonly headers: readonly string[];
  readonly body: Uint8Array;
}

// The platform writes these by itself.
const OWN = ['date', 'connection', 'keep-alive', 'transfer-encoding'];

/** An answer as it came over the line. */
const whole = (port: number, { path, headers = {}, status }: Target): Promise<Whole> =>
  new Promise((resolve, reject) => {
    request({ host: '127.0.0.1', port, path, headers }, (response) => {
      const parts: Buffer[] = [];
      response.on('data', (part: Buffer) => parts.push(part));
      response.on('end', () => {
        if (response.statusCode !== status) reject(new Error(`${path} answered ${response.statusCode}.`));
        const { rawHeaders } = response;
        const sent = rawHeaders.flatMap((name, at) =>
          at % 2 === 0 && !OWN.includes(name.toLowerCase()) ? [name, rawHeaders[at + 1] ?? ''] : [],
        );
        resolve({ path, status, headers: sent, body: Buffer.concat(parts) });
      });
    })
      .on('error', reject)
      .end();
  });

async function targetsAt(port: number): Promise<Readonly<Record<string, Target>>> {
  const cookie = await cookieOf(port, 'tobin');
  const file = '/files/hill-picture/hill-at-night.webp';
  return {
    'open page, guest': { path: '/visit', status: 200 },
    'gated page, member': { path: '/observers/charts', headers: { cookie }, status: 200 },
    'page with 20 posts, member': { path: TWENTY, headers: { cookie }, status: 200 },
    'teaser, guest': { path: '/night-logs/first-light', status: 200 },
    'redirect, guest': { path: '/observers/charts?from=here', status: 303 },
    'missing page, guest': { path: '/crew', status: 404 },
    'address never there, guest': { path: '/never-there', status: 404 },
    'not changed (304)': { path: file, headers: { 'if-none-match': '*' }, status: 304 },
    'file of 10 MB': { path: LARGE, status: 200 },
    'API, guest': { path: '/api/items', status: 200 },
  };
}

const median = (list: readonly number[]): number =>
  list.toSorted((a, b) => a - b)[Math.floor(list.length / 2)] ?? Number.NaN;

const middle = (loads: readonly Load[]): Load => ({
  rate: median(loads.map(({ rate }) => rate)),
  bytes: median(loads.map(({ bytes }) => bytes)),
  p50: median(loads.map(({ p50 }) => p50)),
  p99: median(loads.map(({ p99 }) => p99)),
});

/** Measures every target over every number of connections. Times are of one measurement, in milliseconds. */
export async function benchFrontDoor(
  ports: Ports,
  { milliseconds = 700, rounds = 5, connections = [16, 1, 256] } = {},
  onRow: (row: Row) => void = () => undefined,
): Promise<void> {
  const targets = await targetsAt(ports.kept);
  // Each server has its own sessions.
  const elsewhere = await targetsAt(ports.anew);
  const loader = fork('bench/loader.mjs');
  const bare = fork('bench/plain-server.mjs', { serialization: 'advanced' });
  try {
    const answers = await Promise.all(Object.values(targets).map((target) => whole(ports.kept, target)));
    await reply(bare, { port: ports.plain, of: answers });
    const load = (port: number, target: Target, count: number, span = milliseconds) =>
      reply<Load>(loader, { port, headers: {}, ...target, connections: count, milliseconds: span });
    for (const count of connections)
      for (const [name, target] of Object.entries(targets)) {
        // Two and a half gigabytes at a time measure something else.
        if (target.path === LARGE && count > 16) continue;
        const measured = { plain: [] as Load[], kept: [] as Load[], anew: [] as Load[] };
        for (let round = 0; round <= rounds; round++) {
          const plain = await load(ports.plain, target, count);
          const kept = await load(ports.kept, target, count);
          const anew = await load(ports.anew, elsewhere[name] ?? target, count);
          // The first round warms up.
          if (round === 0) continue;
          measured.plain.push(plain);
          measured.kept.push(kept);
          measured.anew.push(anew);
        }
        const share = (of: readonly Load[]) =>
          median(of.map(({ rate }, at) => rate / (measured.plain[at]?.rate ?? Number.NaN)));
        onRow({
          target: name,
          connections: count,
          plain: middle(measured.plain),
          kept: { ...middle(measured.kept), share: share(measured.kept) },
          anew: { ...middle(measured.anew), share: share(measured.anew) },
        });
      }
  } finally {
    loader.kill();
    bare.kill();
  }
}

/** Quartiles of the time that an answer took, in milliseconds. */
export interface Quartiles {
  readonly low: number;
  readonly middle: number;
  readonly high: number;
}

/** The time of a page that is missing for a guest, and of an address that was never there, asked for by turns. */
export async function benchAlike(
  port: number,
  samples = 2000,
): Promise<{ readonly missing: Quartiles; readonly never: Quartiles }> {
  const agent = new Agent({ keepAlive: true, maxSockets: 1 });
  const took = async (path: string) => {
    const start = performance.now();
    await once(port, agent, { path, status: 404 });
    return performance.now() - start;
  };
  const missing: number[] = [];
  const never: number[] = [];
  for (let at = 0; at < samples + 200; at++) {
    // Now one first and now the other; the first of all warm up.
    const [first, second] = at % 2 === 0 ? ['/crew', '/never-there'] : ['/never-there', '/crew'];
    const times = {
      [first as string]: await took(first as string),
      [second as string]: await took(second as string),
    };
    if (at < 200) continue;
    missing.push(times['/crew'] ?? Number.NaN);
    never.push(times['/never-there'] ?? Number.NaN);
  }
  agent.destroy();
  const quartiles = (list: readonly number[]): Quartiles => {
    const sorted = list.toSorted((a, b) => a - b);
    const at = (share: number) => sorted[Math.floor(sorted.length * share)] ?? Number.NaN;
    return { low: at(0.25), middle: at(0.5), high: at(0.75) };
  };
  return { missing: quartiles(missing), never: quartiles(never) };
}
