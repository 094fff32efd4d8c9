/** A server on a data folder of its own, and a mailbox that takes whatever it sends. */
import { type ChildProcess, spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { SMTPServer } from 'smtp-server';
import { freePort } from '../scripts/free-port.mjs';

export interface OwnSite {
  readonly origin: string;
  /** Its data folder. */
  readonly folder: string;
  /** Where one begins; null where there is a site. */
  readonly begin: string | null;
  readonly stop: () => Promise<void>;
}

/** Starts the built server on an empty folder, and waits until it is ready. */
export async function ownSite(env: Readonly<Record<string, string>> = {}): Promise<OwnSite> {
  const folder = env.TRIVET_DATA ?? mkdtempSync(join(tmpdir(), 'trivet-own-'));
  const port = Number(env.PORT ?? (await freePort()));
  const origin = `http://localhost:${port}`;
  const server: ChildProcess = spawn(process.execPath, ['.next/serve.mjs'], {
    env: { ...process.env, NODE_ENV: 'production', PORT: String(port), TRIVET_DATA: folder, ...env },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  let said = '';
  for await (const part of server.stdout ?? []) {
    said += String(part);
    if (/The address is good for|The desk /.test(said)) break;
  }
  return {
    origin,
    folder,
    begin: /https?:\S+\/begin\/\S+/.exec(said)?.[0] ?? null,
    stop: async () => {
      const ended = once(server, 'exit');
      server.kill('SIGTERM');
      await ended;
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

/** A mail server with one mailbox for everybody. */
export async function mailbox() {
  const letters: string[] = [];
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS'],
    onData: (stream, _, callback) => {
      let letter = '';
      stream.on('data', (part) => {
        letter += String(part);
      });
      // Long lines are folded (RFC 2045 §6.7).
      stream.on('end', () => {
        letters.push(letter.replace(/=\r?\n/g, ''));
        callback();
      });
    },
  });
  server.listen(0, '127.0.0.1');
  await once(server.server, 'listening');
  return {
    letters,
    address: `smtp://127.0.0.1:${(server.server.address() as AddressInfo).port}`,
    close: () => new Promise<void>((resolve) => server.close(() => resolve())),
  };
}
