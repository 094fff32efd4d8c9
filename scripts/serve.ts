/**
 * Serves a data folder. Everything that can be wrong with the surroundings is found here, before anything is served, and
 * said in a sentence.
 */
import next from 'next';
import { builtFiles } from '../src/app/_http/built-files';
import { frontDoor } from '../src/app/_http/front-door';
import {
  isOnServer,
  letBegin,
  mailerAt,
  noteTrouble,
  readEnvironment,
  runningTill,
  runningTrivet,
  type Trivet,
  tendMail,
  tendOrders,
  tendSnapshot,
  tendTables,
  theTime,
} from '../src/services';
import { claimDataFolder } from './data-folder';
import { openMachineDoor } from './machine-door';
import { watching } from './watching';

const dev = process.argv.includes('--dev');

function stop(sentence: string): never {
  console.error(`\n  ${sentence}\n`);
  process.exit(1);
}

const env = readEnvironment(process.env);
if ('problems' in env) stop(env.problems.join('\n  '));
const { port, dataFolder, database, publicUrl, mail } = env;
const onServer = isOnServer(database);

// What is on a server belongs to nobody alone.
if (!onServer) {
  const claim = claimDataFolder(dataFolder);
  if ('problem' in claim) stop(claim.problem);
  process.on('exit', claim.release);
}

const app = next({ dev, port, hostname: 'localhost' });
let ready: Promise<Trivet> | null = null;
let serving: Trivet | null = null;
const watch = watching(env, () => serving);
const { server, stop: close } = frontDoor({
  ready: () => ready ?? open(),
  ...(watch && { watch }),
  built: dev ? () => new Map() : builtFiles,
  desk: (request, response) => app.getRequestHandler()(request, response),
  ...(dev && { development: { upgrade: (...of) => app.getUpgradeHandler()(...of) } }),
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

async function open(): Promise<Trivet> {
  const trivet = await runningTrivet();
  serving = trivet;
  if (!dev) builtFiles();
  await app.prepare();
  tend(trivet);
  if (!onServer) openMachineDoor(dataFolder, trivet);
  return trivet;
}

/** How often the site looks after orders, and after its database, by itself, in milliseconds. */
const TENDING_MS = 30_000;

/** How soon a letter is on its way, in milliseconds. */
const MAIL_MS = 1000;

/** Does a work again and again for as long as it serves, so long after the last time as is said; what goes wrong is noted. */
function again(trivet: Trivet, ms: number, trouble: string, work: () => Promise<unknown>): void {
  const once = () => {
    work()
      .catch((error: unknown) => trivet.isClosed || noteTrouble(trouble, error))
      .finally(() => setTimeout(once, ms).unref());
  };
  once();
}

/** Looks after everything that has to be done without anybody asking. */
function tend(trivet: Trivet): void {
  const till = runningTill();
  again(trivet, TENDING_MS, 'Orders could not be looked after.', async () => {
    if (!trivet.hasSite) return;
    if (till) await till.meet(theTime()).catch(() => undefined);
    await trivet.unlessAnother('orders', () => tendOrders(trivet, till, theTime()));
  });
  const post = mail && { mailer: mailerAt(mail.server), from: mail.from };
  again(trivet, post ? MAIL_MS : TENDING_MS, 'Letters could not be sent.', () =>
    tendMail(trivet, post, theTime),
  );
  // Not while the first pages are asked for.
  const database = async () => {
    await tendSnapshot(trivet);
    await tendTables(trivet);
  };
  const later = () => again(trivet, TENDING_MS, 'The database could not be looked after.', database);
  setTimeout(later, TENDING_MS).unref();
}

server.listen(port, host, async () => {
  ready = open();
  let trivet: Trivet;
  try {
    trivet = await ready;
  } catch (error) {
    const { message } = error as Error;
    return stop(onServer ? message : `The data folder ${dataFolder} can't be opened: ${message}`);
  }
  console.log(
    trivet.hasSite
      ? `\n  Trivet is ready.\n\n  The site   ${publicUrl.origin}/\n  The desk   ${publicUrl.origin}/desk\n`
      : `\n  Trivet is ready. The ${onServer ? 'database' : `data folder ${dataFolder}`} holds no site yet.\n\n  Begin yours at\n  ${publicUrl.origin}/begin/${letBegin(trivet, new Date())}\n\n  The address is good for one site and one day. To look at the demo instead: npm run demo\n`,
  );
  const hint = process.env.TRIVET_HINT;
  if (hint) console.log(`${hint}\n`);
});

for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  // Asked once, it finishes what it is answering; asked again, it goes.
  process.once(signal, () => {
    process.once(signal, () => process.exit(1));
    close()
      .then(runningTrivet)
      .then((trivet) => trivet.close())
      .finally(() => process.exit(0));
  });
}
