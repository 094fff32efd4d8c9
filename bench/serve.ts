/** Requests per second of a gated page, an open page and a bare route handler, on one server in one run. */
import { Agent, request } from 'node:http';

const CONNECTIONS = 16;

export interface Target {
  readonly path: string;
  readonly cookie?: string;
  readonly status: number;
}

function once(port: number, agent: Agent, { path, cookie, status }: Target): Promise<void> {
  return new Promise((resolve, reject) => {
    const sent = request(
      { host: '127.0.0.1', port, path, agent, ...(cookie && { headers: { cookie } }) },
      (response) => {
        if (response.statusCode !== status) reject(new Error(`${path} answered ${response.statusCode}.`));
        response.resume();
        response.on('end', resolve);
      },
    );
    sent.on('error', reject);
    sent.end();
  });
}

export async function rate(port: number, target: Target, milliseconds: number): Promise<number> {
  const agent = new Agent({ keepAlive: true, maxSockets: CONNECTIONS });
  const start = performance.now();
  let answered = 0;
  const work = async () => {
    while (performance.now() - start < milliseconds) {
      await once(port, agent, target);
      answered++;
    }
  };
  await Promise.all(Array.from({ length: CONNECTIONS }, work));
  agent.destroy();
  return answered / ((performance.now() - start) / 1000);
}

/** Signs in and answers the session cookie. */
export async function cookieOf(port: number, who: string): Promise<string> {
  const response = await fetch(`http://127.0.0.1:${port}/sign-in`, {
    method: 'POST',
    redirect: 'manual',
    body: new URLSearchParams({ email: `${who}@larkfell.example`, password: 'larkfell-demo' }),
  });
  const cookie = response.headers.getSetCookie()[0]?.split(';')[0];
  if (!cookie) throw new Error(`${who} can't sign in.`);
  return cookie;
}

/** Median rates over rounds in which the targets take turns. */
export async function benchServe(
  port: number,
  milliseconds = 2000,
  rounds = 5,
): Promise<Record<string, number>> {
  const cookie = await cookieOf(port, 'tobin');
  const targets: Record<string, Target> = {
    'bare route handler': { path: '/api/health', status: 200 },
    'open page, guest': { path: '/visit', status: 200 },
    'open page, member': { path: '/visit', cookie, status: 200 },
    'gated page, member': { path: '/observers/charts', cookie, status: 200 },
    'gated page, turned away (303)': { path: '/observers/charts', status: 303 },
    'missing page, guest': { path: '/crew', status: 404 },
  };
  const rates: Record<string, number[]> = {};
  for (const target of Object.values(targets)) await rate(port, target, milliseconds / 2);
  for (let round = 0; round < rounds; round++) {
    for (const [name, target] of Object.entries(targets)) {
      rates[name] ??= [];
      rates[name].push(await rate(port, target, milliseconds));
    }
  }
  return Object.fromEntries(Object.entries(rates).map(([name, list]) => [name, median(list)]));
}

const median = (list: readonly number[]): number =>
  list.toSorted((a, b) => a - b)[Math.floor(list.length / 2)] ?? 0;
