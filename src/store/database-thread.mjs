/**
 * The database in a thread of its own: PGlite runs a query from beginning to end without a pause, and nobody else is to wait
 * for that. Plain JavaScript, because a thread is loaded by Node itself. What it is told and what it answers is in
 * `threaded-client.ts`.
 */
import { readFileSync } from 'node:fs';
import { parentPort, workerData } from 'node:worker_threads';
import { gunzipSync } from 'node:zlib';
import { PGlite } from '@electric-sql/pglite';
import { madeReady } from './made-ready.mjs';

const { folder, copy, packed } = workerData;
const begins = copy ?? (folder === null && packed !== null ? gunzipSync(readFileSync(packed)) : null);
const client = begins ? new PGlite({ loadDataDir: new Blob([begins]) }) : new PGlite(folder ?? undefined);

const ready = madeReady(client);

/** The transaction that is going on, with what ends it. */
let current = null;

let last = Promise.resolve();
/** What is outside of transactions has its turn when all that was asked before it has ended, transactions too. */
function inTurn(work) {
  const done = last.then(work);
  last = done.then(
    () => {},
    () => {},
  );
  return done;
}

async function answer({ kind, inside, text, params, rowMode, raw }) {
  switch (kind) {
    case 'open':
      return client.waitReady;
    case 'query': {
      const query = () => client.runExclusive(() => ready.ask(text, params, { rowMode, raw }));
      if (inside) return query();
      return inTurn(async () => {
        const results = await query();
        await client.syncToFs();
        return results;
      });
    }
    case 'exec': {
      const run = async (by) => {
        const results = await by.exec(text);
        await client.runExclusive(ready.tablesChanged);
        return results;
      };
      return inside ? run(current.tx) : inTurn(() => run(client));
    }
    case 'begin':
      return new Promise((begun, failed) => {
        const ended = inTurn(async () => {
          try {
            await client.transaction(
              (tx) =>
                new Promise((commit) => {
                  current = { tx, commit, ended };
                  begun();
                }),
            );
          } finally {
            await client.runExclusive(ready.ended);
          }
        });
        ended.catch(failed);
      });
    case 'commit': {
      const { commit, ended } = current;
      current = null;
      commit();
      return ended;
    }
    case 'roll back': {
      const { tx, commit, ended } = current;
      current = null;
      await tx.rollback();
      commit();
      return ended;
    }
    case 'dump':
      return inTurn(async () => new Uint8Array(await (await client.dumpDataDir('none')).arrayBuffer()));
    case 'close':
      return client.close();
    default:
      throw new Error(`The database is not told how to ${kind}.`);
  }
}

parentPort.on('message', async ({ id, ...asked }) => {
  try {
    parentPort.postMessage({ id, result: await answer(asked) });
  } catch (error) {
    // An error loses its own fields on the way: PostgreSQL's code, the constraint.
    const fields = Object.entries(error).filter(([, value]) => typeof value === 'string');
    parentPort.postMessage({ id, failure: { message: error.message, fields: Object.fromEntries(fields) } });
  }
});
