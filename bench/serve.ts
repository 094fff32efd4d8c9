/** Asking a server, over and over. */
import { Agent, request } from 'node:http';

const CONNECTIONS = 16;

export interface Target {
  readonly path: string;
  readonly cookie?: string;
  readonly status: number;
}

export function once(port: number, agent: Agent, { path, cookie, status }: Target): Promise<void> {
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
