/**
 * A door for whoever has the machine: a socket in the data folder, which the file system opens to the user that the server
 * runs as and to nobody else. Nothing of it is on any network.
 */
import { chmodSync, rmSync } from 'node:fs';
import { createServer, request, type Server } from 'node:http';
import { join, relative } from 'node:path';
import type { Readable, Writable } from 'node:stream';
import { Busy, backUp, noteTrouble, type Trivet } from '../src/services';

// The longest path that a socket can have, by sockaddr_un(7).
const LONGEST = 107;

/** Where the socket of a data folder is; null where its path is too long for one. */
export function machineDoorIn(folder: string): string | null {
  const path = join(folder, 'machine.sock');
  const short = relative(process.cwd(), path);
  return [path, short].find((one) => Buffer.byteLength(one) <= LONGEST) ?? null;
}

/** Opens the door of a data folder that this process has to itself. */
export function openMachineDoor(folder: string, trivet: Trivet): Server | null {
  const path = machineDoorIn(folder);
  if (path === null) return null;
  rmSync(path, { force: true });
  const server = createServer(async ({ method, url }, response) => {
    const refuse = (status: number, sentence: string) => response.writeHead(status).end(sentence);
    if (method !== 'GET' || url !== '/backup') return refuse(404, 'There is nothing here.');
    if (!trivet.hasSite) return refuse(409, 'There is no site yet.');
    try {
      const { tar, size, made } = await backUp(trivet);
      response.writeHead(200, { 'content-type': 'application/x-tar', 'x-about': String(size) });
      pour(tar, response);
      await made.catch((error: unknown) => noteTrouble('A backup was not made.', error));
    } catch (error) {
      if (response.headersSent) return response.destroy();
      if (error instanceof Busy) return refuse(503, 'Another backup is being made. Wait until it is done.');
      return refuse(500, `The backup could not begin: ${(error as Error).message}`);
    }
  });
  server.on('error', (error) => noteTrouble('The machine’s own door could not be opened.', error));
  server.listen(path, () => chmodSync(path, 0o600));
  server.unref();
  return server;
}

/** Sends all of a stream. Whoever hangs up ends it; where it breaks off, so does what is sent. */
export function pour(from: Readable, to: Writable): void {
  to.once('close', () => from.destroy());
  // What has come to its end is sent to its end: whoever reads slowly has not got all of it yet.
  from.once('close', () => {
    if (!to.writableEnded) to.destroy();
  });
  from.once('error', () => to.destroy());
  from.pipe(to);
}

/** A backup from the server that serves a data folder; or why there is none, in a sentence. */
export function askForBackup(
  folder: string,
): Promise<{ readonly tar: Readable; readonly size: number } | { readonly problem: string }> {
  const path = machineDoorIn(folder);
  if (path === null)
    return Promise.resolve({
      problem: `The path of ${folder} is too long for a socket. Run this from within it, or stop the server first.`,
    });
  return new Promise((resolve) => {
    const asked = request({ socketPath: path, path: '/backup' }, (response) => {
      if (response.statusCode === 200)
        return resolve({ tar: response, size: Number(response.headers['x-about'] ?? 0) });
      let said = '';
      response.on('data', (part) => {
        said += String(part);
      });
      response.on('end', () => resolve({ problem: said }));
    });
    asked.on('error', (error: NodeJS.ErrnoException) =>
      resolve({
        problem: `The server that uses ${folder} does not answer (${error.code ?? error.message}). Run this as the user that it runs as.`,
      }),
    );
    asked.end();
  });
}
