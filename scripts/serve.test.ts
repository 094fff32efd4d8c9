import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { type Bundled, bundled } from './bundle-for-tests';

const folder = mkdtempSync(join(tmpdir(), 'trivet-'));
let program: Bundled;

beforeAll(() => {
  program = bundled('scripts/serve.ts');
});
afterAll(() => {
  rmSync(folder, { recursive: true });
  program.remove();
});

/** Starts the server with an environment in which it can't run; answers its exit code and what it said. */
function start(env: Record<string, string>): Promise<{ code: number | null; said: string }> {
  return new Promise((resolve) => {
    const server = spawn(process.execPath, [...program.args], {
      env: { ...process.env, TRIVET_DATA: join(folder, 'data'), ...env },
    });
    let said = '';
    server.stderr.on('data', (part: Buffer) => {
      said += part.toString();
    });
    server.on('exit', (code) => resolve({ code, said }));
  });
}

it('stops at a wrong environment value with a sentence', async () => {
  const { code, said } = await start({ PORT: 'many' });
  expect([code, said]).toEqual([1, expect.stringContaining('PORT has to be a number')]);
});

it('stops at a data folder that can’t be written with a sentence', async () => {
  writeFileSync(join(folder, 'file'), '');
  const { code, said } = await start({ TRIVET_DATA: join(folder, 'file', 'data') });
  expect([code, said]).toEqual([1, expect.stringMatching(/can't be written .* TRIVET_DATA/)]);
});

it('stops at a port that is taken with a sentence', async () => {
  const other = createServer();
  const port = await new Promise<number>((resolve) => {
    other.listen(0, '127.0.0.1', () => resolve((other.address() as { port: number }).port));
  });
  const { code, said } = await start({ PORT: String(port) });
  other.close();
  expect([code, said]).toEqual([1, expect.stringContaining(`Port ${port} is taken.`)]);
});

it('says where a site begins in a data folder that holds none, and serves that to whoever has the address', async () => {
  const env = { ...process.env, TRIVET_DATA: join(folder, 'empty'), PORT: '4179' };
  const server = spawn(process.execPath, [...program.args], {
    env: { ...env, NODE_ENV: 'production', TRIVET_URL: 'http://localhost:4179' },
  });
  const ended = new Promise((resolve) => server.once('exit', resolve));
  try {
    let said = '';
    for await (const part of server.stdout) {
      said += String(part);
      if (said.includes('The address is good for')) break;
    }
    const [address = ''] = /http:\/\/localhost:4179\/begin\/[\w-]{43}/.exec(said) ?? [];
    expect((await fetch(address)).status).toBe(200);
    // The desk is the framework’s, and there is none before there is a site.
    for (const path of ['/', '/desk', '/desk/api/site'])
      expect((await fetch(`http://localhost:4179${path}`)).status).toBe(503);
    expect((await fetch('http://localhost:4179/api/health')).status).toBe(200);
  } finally {
    server.kill('SIGTERM');
    await ended;
  }
}, 60_000);
