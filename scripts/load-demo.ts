/**
 * Loads the demo site through the service that loads anybody's site. Starts from nothing each time unless told to
 * `--keep`; erases only a data folder that was made as a demo.
 */
import { existsSync, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { larkfellOn } from '../demo/larkfell';
import { salesOn } from '../demo/sales';
import { workOn } from '../demo/work';
import { importSite, isOnServer, readEnvironment, Trivet } from '../src/services';
import {
  holdPlace,
  insertHandIn,
  insertNotice,
  insertOrder,
  keepPlace,
  readPeople,
  writePeople,
  writeVoucher,
} from '../src/store';
import { claimDataFolder } from './data-folder';

async function load(keep: boolean): Promise<readonly string[]> {
  const env = readEnvironment(process.env);
  if ('problems' in env) return env.problems;
  return isOnServer(env.database) ? loadOnServer(env, keep) : loadInFolder(env, keep);
}

/** Into a database of a server only where it holds nothing. */
async function loadOnServer(env: Environment, keep: boolean): Promise<readonly string[]> {
  const trivet = await Trivet.open(env.database);
  try {
    if (!trivet.hasSite) return await fill(trivet, env);
    return keep ? [] : ['The database holds a site already. Name an empty one with TRIVET_DATABASE.'];
  } finally {
    await trivet.close();
  }
}

async function loadInFolder(env: Environment, keep: boolean): Promise<readonly string[]> {
  const { dataFolder, database } = env;
  const claim = claimDataFolder(dataFolder);
  if ('problem' in claim) return [claim.problem];
  try {
    const mark = join(dataFolder, 'is-a-demo');
    if (existsSync(database) && !existsSync(mark)) {
      return [
        `The data folder ${dataFolder} holds a site that is not the demo. Name another folder with TRIVET_DATA.`,
      ];
    }
    if (keep && existsSync(database)) return [];
    rmSync(database, { recursive: true, force: true });
    rmSync(join(dataFolder, 'till.json'), { force: true });
    writeFileSync(mark, 'Everybody here has the password larkfell-demo. This folder may be erased.\n');
    const trivet = await Trivet.open(database);
    try {
      return await fill(trivet, env);
    } finally {
      await trivet.close();
    }
  } finally {
    claim.release();
  }
}

/** Loads the demo into an empty Trivet, and writes what its till is to know beside it. */
async function fill(trivet: Trivet, { dataFolder, publicUrl }: Environment): Promise<readonly string[]> {
  const today = new Date().toISOString().slice(0, 10);
  const site = larkfellOn(today);
  const problems = await importSite(trivet, site, 'The demo');
  if (problems.length > 0) return problems;
  // What people handed in is no part of a site’s file.
  for (const work of workOn(today)) await insertHandIn(trivet.db, work, []);
  const ledger = await loadSales(trivet, salesOn(today, site.people ?? [], publicUrl.origin));
  mkdirSync(dataFolder, { recursive: true });
  writeFileSync(join(dataFolder, 'till.json'), JSON.stringify(ledger));
  return [];
}

/** Loads what was bought before, and answers what the till is to know of it. */
async function loadSales(
  { db }: Trivet,
  { orders, notices, ledger, vouchers, seats, replaced }: ReturnType<typeof salesOn>,
): Promise<unknown> {
  const now = new Date();
  await db.transaction(async (tx) => {
    for (const order of orders) await insertOrder(tx, order);
    for (const { order, came, said } of notices)
      await insertNotice(tx, { id: said.id, order, came, said, problem: '' });
    for (const voucher of vouchers) await writeVoucher(tx, voucher);
    for (const { product, order } of seats) {
      await holdPlace(tx, product, 40, order, now, now);
      await keepPlace(tx, product, order);
    }
    const people = await readPeople(tx);
    await writePeople(
      tx,
      people.map((before) => ({
        before,
        after: {
          ...before,
          purchases: before.purchases.filter(
            ({ product }) => !replaced.some((one) => one.person === before.id && one.product === product),
          ),
          // What somebody has by a pass alone is theirs for as long as the pass is.
          level: before.id === 'tobin' ? null : before.level,
        },
      })),
    );
  });
  return ledger;
}

type Environment = Exclude<ReturnType<typeof readEnvironment>, { readonly problems: unknown }>;

const problems = await load(process.argv.includes('--keep'));
for (const problem of problems) console.error(`  ${problem}`);
process.exit(problems.length > 0 ? 1 : 0);
