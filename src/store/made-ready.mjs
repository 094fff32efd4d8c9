/**
 * Questions by statements that the database has made ready: reading and planning a question takes most of the time of one
 * that is answered from an index, and the same few hundred are asked again and again. By the extended query protocol of
 * PostgreSQL, with all of a question in one message. Plain JavaScript, like the thread that asks.
 */
import { parse, protocol } from '@electric-sql/pglite';

const { serialize } = protocol;
/** So many statements are kept ready; those that were asked least lately go. */
const MOST = 400;
/** Longer ones are lists of rows, hardly ever the same twice. */
const LONGEST = 8000;
const KEPT = /^\s*(?:select|insert|update|delete|with)\b/i;
/** What changes tables: what was made ready may answer with other columns then. */
const CHANGES_TABLES = /^\s*(?:create|alter|drop|truncate|do)\b/i;

const together = (messages) => Buffer.concat(messages);
const asItIs = (value) => value;

/** Asks by a client, one question after the other: whoever calls keeps others from asking meanwhile. */
export function madeReady(client) {
  /** By text: the name of the statement and the types (OIDs) of its parameters. */
  const known = new Map();
  let count = 0;
  /** Whether tables were changed since the last transaction ended. */
  let changed = false;

  const send = (...messages) => client.execProtocolStream(together(messages), { syncToFs: false });

  async function makeReady(name, text) {
    const described = await send(serialize.parse({ name, text }), serialize.describe({ type: 'S', name }));
    return { name, types: parse.parseDescribeStatementResults(described) };
  }

  async function statementFor(text) {
    if (text.length > LONGEST || !KEPT.test(text)) return makeReady('', text);
    const found = known.get(text);
    if (found) {
      // The last to go is what was asked last.
      known.delete(text);
      known.set(text, found);
      return found;
    }
    const [oldest] = known;
    if (oldest && known.size >= MOST) {
      known.delete(oldest[0]);
      await send(serialize.close({ type: 'S', name: oldest[1].name }));
    }
    count += 1;
    const made = await makeReady(`ready_${count}`, text);
    known.set(text, made);
    return made;
  }

  const written = (param, type) => {
    if (param === null || param === undefined) return null;
    const write = client.serializers[type];
    return write ? write(param) : param.toString();
  };

  /** By which types (OIDs) stay the text that the database writes, how each is read: there are hundreds of types. */
  const reading = new Map();
  function parsersBut(raw) {
    const key = raw.join();
    const found = reading.get(key) ?? {
      ...client.parsers,
      ...Object.fromEntries(raw.map((type) => [type, asItIs])),
    };
    reading.set(key, found);
    return found;
  }

  /** Rows are arrays or objects by `rowMode`; `raw` are types whose values stay the text that the database writes. */
  async function ask(text, params, { rowMode, raw }) {
    let results;
    try {
      const { name, types } = await statementFor(text);
      const values = params.map((param, at) => written(param, types[at]));
      results = await send(
        serialize.bind({ statement: name, values }),
        serialize.describe({ type: 'P' }),
        serialize.execute({}),
        serialize.sync(),
      );
    } catch (error) {
      // Whatever became of it, the next question is read from its beginning.
      await send(serialize.sync());
      throw error;
    }
    if (CHANGES_TABLES.test(text)) await tablesChanged();
    return parse.parseResults(results, parsersBut(raw), { rowMode })[0];
  }

  /** Makes everything ready anew the next time it is asked. */
  async function forget() {
    if (known.size === 0) return;
    known.clear();
    await send(serialize.query('deallocate all'));
  }

  /** Tells that tables may be others than they were. */
  async function tablesChanged() {
    changed = true;
    await forget();
  }

  /** Tells that a transaction has ended: if it was undone, tables are again what they were before it. */
  async function ended() {
    if (changed) await forget();
    changed = false;
  }

  return { ask, tablesChanged, ended };
}
