/** A client of the database that runs in a thread of its own (`database-thread.mjs`), as the query builder wants one. */
import type { Worker } from 'node:worker_threads';
import type { PGlite, QueryOptions, Results } from '@electric-sql/pglite';
import { startThread } from './thread';
import { turns } from './turns';

/** Asks the thread for one thing. */
type Ask = (asked: Asked) => Promise<unknown>;

type Asked =
  | { readonly kind: 'open' | 'begin' | 'commit' | 'roll back' | 'dump' | 'close' }
  | { readonly kind: 'exec'; readonly inside: boolean; readonly text: string }
  | {
      readonly kind: 'query';
      readonly inside: boolean;
      readonly text: string;
      readonly params: readonly unknown[];
      readonly rowMode: 'array' | 'object';
      /** The types (OIDs) whose values stay the text that the database writes. */
      readonly raw: readonly string[];
    };

/** The part of a client that queries are sent to: the client itself, or a transaction. */
export interface Queries {
  readonly query: (text: string, params?: readonly unknown[], options?: QueryOptions) => Promise<Results>;
  readonly exec: (text: string) => Promise<unknown>;
}

export interface ThreadedClient extends Queries {
  readonly transaction: <T>(work: (queries: Queries) => Promise<T>) => Promise<T>;
  readonly dump: () => Promise<Blob>;
  /** Ends the thread. */
  readonly close: () => Promise<void>;
}

/**
 * Opens the database in a folder, a fresh one in memory for `null`, or one in memory that begins as another one was. A fresh
 * one begins as what is packed in a file, if there is one: the thread reads it, so that nobody else waits for that.
 */
export async function openThreadedClient(
  from: string | null | Blob,
  packed: string | null = null,
): Promise<ThreadedClient> {
  const copy = from instanceof Blob ? new Uint8Array(await from.arrayBuffer()) : null;
  const worker = startThread('src/store/database-thread.mjs', {
    workerData: { folder: copy ? null : from, copy, packed },
    ...(copy && { transferList: [copy.buffer] }),
  });
  const ask = asking(worker);
  try {
    await ask({ kind: 'open' });
  } catch (error) {
    await worker.terminate();
    throw error;
  }
  return {
    ...queriesBy(ask, false),
    transaction: async (work) => {
      await ask({ kind: 'begin' });
      let answer: Awaited<ReturnType<typeof work>>;
      try {
        answer = await work(queriesBy(ask, true));
      } catch (error) {
        await ask({ kind: 'roll back' });
        throw error;
      }
      await ask({ kind: 'commit' });
      return answer;
    },
    dump: async () => new Blob([(await ask({ kind: 'dump' })) as Uint8Array<ArrayBuffer>]),
    close: async () => {
      await ask({ kind: 'close' });
      await worker.terminate();
    },
  };
}

/** Queries inside the transaction that is going on, or outside any: those wait until it has ended. */
const queriesBy = (ask: Ask, inside: boolean): Queries => ({
  query: async (text, params = [], { rowMode = 'object', parsers = {} } = {}) =>
    (await ask({ kind: 'query', inside, text, params, rowMode, raw: Object.keys(parsers) })) as Results,
  exec: (text) => ask({ kind: 'exec', inside, text }),
});

/** The query builder asks for the whole class; these are the methods of it that it calls. */
export const asPGlite = (client: ThreadedClient): PGlite => client as unknown as PGlite;

interface Waiting {
  readonly resolve: (result: unknown) => void;
  readonly reject: (error: Error) => void;
}

interface Answer {
  readonly id: number;
  readonly result?: unknown;
  readonly failure?: { readonly message: string; readonly fields: Readonly<Record<string, string>> };
}

function asking(worker: Worker): Ask {
  const waiting = new Map<number, Waiting>();
  let asked = 0;
  let ended: Error | null = null;
  // A thread that nobody waits for doesn't keep the process from ending.
  worker.unref();
  const settle = (id: number): Waiting | undefined => {
    const one = waiting.get(id);
    waiting.delete(id);
    if (waiting.size === 0) worker.unref();
    return one;
  };
  const inTurns = turns();
  worker.on('message', ({ id, result, failure }: Answer) =>
    inTurns(() => {
      const one = settle(id);
      if (failure === undefined) one?.resolve(result);
      else one?.reject(Object.assign(new Error(failure.message), failure.fields));
    }),
  );
  const end = (error: Error) => {
    ended ??= error;
    for (const id of [...waiting.keys()]) settle(id)?.reject(ended);
  };
  worker.on('error', end);
  worker.on('exit', () => end(new Error('The database is closed.')));
  return (message) =>
    new Promise((resolve, reject) => {
      if (ended) return reject(ended);
      asked += 1;
      waiting.set(asked, { resolve, reject });
      worker.ref();
      worker.postMessage({ id: asked, ...message });
    });
}
