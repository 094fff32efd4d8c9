/** The connection on which a process hears that others wrote to the log of changes, and asks how far the log is. */
import pg, { type ClientConfig } from 'pg';

/** What triggers say something on when they wrote to the log. */
const CHANNEL = 'trivet_changes';
/** How long an answer is waited for, in milliseconds. */
const PATIENCE_MS = 2000;

/** Connects when it is first asked, and again after a connection was lost. */
export class Listener {
  #client: Promise<pg.Client> | null = null;
  #heard: () => void = () => undefined;
  #closed = false;

  constructor(
    private readonly options: ClientConfig,
    /** The newest migration that this process knows, as it is told in the database. */
    private readonly migration: number,
  ) {}

  listen(heard: () => void): void {
    this.#heard = heard;
  }

  /** The number of the latest entry of the log. Rejects where it can’t be had, and where a newer Trivet has the database. */
  async lastNumber(): Promise<number> {
    if (this.#closed) throw new Error('The database is closed.');
    this.#client ??= this.#connect();
    const asked = this.#client;
    try {
      const client = await asked;
      const { rows } = await client.query<{ number: number; migration: number }>(
        `select coalesce((select max(number) from changes), 0)::int8 as number,
          (select max(created_at) from drizzle.__drizzle_migrations) as migration`,
      );
      const [{ number, migration } = { number: 0, migration: 0 }] = rows;
      if (migration !== this.migration)
        throw new Error(
          'A newer Trivet has brought this database up. Start this process anew, of that version.',
        );
      return number;
    } catch (error) {
      this.#lose(asked);
      throw error;
    }
  }

  async close(): Promise<void> {
    this.#closed = true;
    const client = await this.#client?.catch(() => null);
    await client?.end().catch(() => undefined);
  }

  async #connect(): Promise<pg.Client> {
    const client = new pg.Client({
      ...this.options,
      connectionTimeoutMillis: PATIENCE_MS,
      query_timeout: PATIENCE_MS,
    });
    const asked = this.#client;
    client.on('error', () => this.#lose(asked ?? this.#client));
    client.on('end', () => this.#lose(asked ?? this.#client));
    client.on('notification', () => this.#heard());
    await client.connect();
    await client.query(`listen ${CHANNEL}`);
    return client;
  }

  #lose(asked: Promise<pg.Client> | null): void {
    if (asked === null || this.#client !== asked) return;
    this.#client = null;
    asked.then((client) => client.end()).catch(() => undefined);
  }
}
