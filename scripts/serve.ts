/**
 * Serves a data folder. Everything that can be wrong with the surroundings is found here, before anything is served, and
 * said in a sentence.
 */
import { createServer, type IncomingMessage } from 'node:http';
import next from 'next';
import { builtFiles, serveBuilt } from '../src/app/_http/built-files';
import { isDesk, serveSite } from '../src/app/_http/site-server';
import { readEnvironment, runningTrivet } from '../src/services';
import { claimDataFolder } from './data-folder';

const dev = process.argv.includes('--dev');

function stop(sentence: string): never {
  console.error(`\n  ${sentence}\n`);
  process.exit(1);
}

const env = readEnvironment(process.env);
if ('problems' in env) stop(env.problems.join('\n  '));
const { port, dataFolder, publicUrl } = env;

const claim = claimDataFolder(dataFolder);
if ('problem' in claim) stop(claim.problem);
process.on('exit', claim.release);

const app = next({ dev, port, hostname: 'localhost' });
/** Settles when the site is in memory and pages can be served; requests that come earlier wait for it. */
let ready: Promise<unknown> = Promise.resolve();

/** Nothing is open for longer than a slow line needs, and there are no more of them than one machine can look after. */
const LIMITS = { headersTimeout: 20_000, requestTimeout: 300_000, keepAliveTimeout: 30_000 };
const MOST_CONNECTIONS = 2000;

const server = createServer(LIMITS, (request: IncomingMessage, response) => {
  const [path = '/'] = (request.url ?? '/').split('?');
  const built = dev ? undefined : builtFiles().get(path);
  if (built) {
    serveBuilt(built, request, response);
    return;
  }
  const desk = isDesk(path, dev);
  // Who is asking can't be made up: what comes of that name from outside is overwritten.
  if (desk) request.headers['x-trivet-from'] = request.socket.remoteAddress ?? 'unknown';
  ready
    .then(() => (desk ? app.getRequestHandler()(request, response) : serveSite(request, response)))
    .catch((error: unknown) => {
      console.error(error);
      response.destroy();
    });
});
server.maxConnections = MOST_CONNECTIONS;
server.on('upgrade', (request, socket, head) => {
  if (dev) return app.getUpgradeHandler()(request, socket, head);
  // Nothing here is spoken but HTTP; the framework would listen and never answer.
  const refusal = 'HTTP/1.1 400 Bad Request\r\nConnection: close\r\nContent-Length: 0\r\n\r\n';
  socket.end(refusal, () => socket.destroy());
});
server.on('error', (error: NodeJS.ErrnoException) => {
  if (error.code === 'EADDRINUSE')
    stop(`Port ${port} is taken. Stop what uses it, or choose another with PORT=3001.`);
  if (error.code === 'EACCES')
    stop(`Port ${port} is not allowed to this user. Choose one above 1023 with PORT.`);
  stop(`The server stopped: ${error.message}`);
});

// Only a site with a public address of its own is offered to other machines.
const host = publicUrl.hostname === 'localhost' ? '127.0.0.1' : undefined;

async function open(): Promise<void> {
  const trivet = await runningTrivet();
  if (!trivet.hasSite) {
    stop(
      `The data folder ${dataFolder} holds no site yet. Load the demo with "npm run demo", or name another folder with TRIVET_DATA.`,
    );
  }
  if (!dev) builtFiles();
  await app.prepare();
}

server.listen(port, host, async () => {
  ready = open();
  try {
    await ready;
  } catch (error) {
    stop(`The data folder ${dataFolder} can't be opened: ${(error as Error).message}`);
  }
  console.log(
    `\n  Trivet is ready.\n\n  The site   ${publicUrl.origin}/\n  The desk   ${publicUrl.origin}/desk\n`,
  );
  const hint = process.env.TRIVET_HINT;
  if (hint) console.log(`${hint}\n`);
});

for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.once(signal, () => {
    server.close();
    server.closeAllConnections();
    runningTrivet()
      .then((trivet) => trivet.close())
      .finally(() => process.exit(0));
  });
}
