/** The connection on which a process hears what others tell, and that they wrote to the log of changes, and asks how far the log is. */
import pg, { type ClientConfig } from 'pg';
import { MIGRATION, requireVersion } from './server-checks';

/** What triggers say something on when they wrote to the log. */
const CHANNEL = 'trivet_changes';
/** What processes tell one another on. */
export const WORDS = 'trivet_words';
/** How long an answer is waited for, in milliseconds. */
const PATIENCE_MS = 2000;

/** Connects when it is first asked, and again after a connection was lost. */
export class Listener {
  #connection: { readonly client: pg.Client; readonly ready: Promise<unknown> } | null = null;
  #heard: () => void = () => undefined;
  #told: (text: string) => void = () => undefined;
  #closed = false;

  constructor(private readonly options: ClientConfig) {}

  listen(heard: () => void): void {
    this.#heard = heard;
  }

  hear(told: (text: string) => void): void {
    this.#told = told;
  }

  /** The number of the latest entry of the log. Rejects where it can’t be had, and where a newer Trivet has the database. */
  async lastNumber(): Promise<number> {
    if (this.#closed) throw new Error('The database is closed.');
    this.#connection ??= this.#connect();
    const { client, ready } = this.#connection;
    try {
      await ready;
      const { rows } = await client.query<{ number: number; migration: number }>(
        `select coalesce((select max(number) from changes), 0)::int8 as number, ${MIGRATION} as migration`,
      );
      const [{ number, migration } = { number: 0, migration: 0 }] = rows;
      requireVersion(migration);
      return number;
    } catch (error) {
      this.#lose(client);
      throw error;
    }
  }

  async close(): Promise<void> {
    this.#closed = true;
    await this.#connection?.client.end().catch(() => undefined);
  }

  #connect() {
    const client = new pg.Client({
      ...this.options,
      connectionTimeoutMillis: PATIENCE_MS,
      query_timeout: PATIENCE_MS,
    });
    client.on('error', () => this.#lose(client));
    client.on('end', () => this.#lose(client));
    client.on('notification', ({ channel, payload = '' }) =>
      channel === WORDS ? this.#told(payload) : this.#heard(),
    );
    const ready = client.connect().then(() => client.query(`listen ${CHANNEL}; listen ${WORDS}`));
    // Whoever asks waits for it, and hears what went wrong.
    ready.catch(() => undefined);
    return { client, ready };
  }

  #lose(client: pg.Client): void {
    if (this.#connection?.client !== client) return;
    this.#connection = null;
    client.end().catch(() => undefined);
  }
}
