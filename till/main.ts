/** Serves the stand-in till: `TRIVET_TILL` says where, `TRIVET_URL` or `PORT` where its site is, `TRIVET_DATA` where it keeps what it knows. */
import { mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { readEnvironment } from '../src/services';
import { emptyLedger, type Ledger } from './ledger';
import { tillServer } from './server';

const env = readEnvironment(process.env);
if ('problems' in env || env.till === null) {
  console.error(
    'problems' in env ? env.problems.join('\n') : 'TRIVET_TILL and TRIVET_TILL_KEYS say where the till is.',
  );
  process.exit(1);
}
const { till, dataFolder, publicUrl } = env;
const file = join(dataFolder, 'till.json');

function keptLedger(): Ledger {
  try {
    return { ...emptyLedger, ...(JSON.parse(readFileSync(file, 'utf8')) as Ledger) };
  } catch {
    return emptyLedger;
  }
}

mkdirSync(dataFolder, { recursive: true });
const { server, close } = tillServer({
  notify: new URL('/shop/notices', publicUrl).href,
  keys: till.keys,
  origin: new URL(till.url).origin,
  ledger: keptLedger(),
  keep: (ledger) => {
    writeFileSync(`${file}.new`, JSON.stringify(ledger));
    renameSync(`${file}.new`, file);
  },
});
server.on('error', (error: NodeJS.ErrnoException) => {
  console.error(
    error.code === 'EADDRINUSE'
      ? `Port ${new URL(till.url).port} is taken; the till needs it. Choose another PORT: the till stands beside it.`
      : `The till stopped: ${error.message}`,
  );
  process.exit(1);
});
server.listen(Number(new URL(till.url).port), '127.0.0.1');
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.once(signal, () => close().finally(() => process.exit(0)));
