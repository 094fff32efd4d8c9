/** What queries are sent to: PostgreSQL through Drizzle, whichever driver brings them there. */
import { sql } from 'drizzle-orm';
import type { PgDatabase, PgQueryResultHKT } from 'drizzle-orm/pg-core';
import type * as schema from './schema';

/** What a query answers that was written by hand, as every driver has it. */
interface Answered<Row> {
  readonly rows: readonly Row[];
}

interface Rows extends PgQueryResultHKT {
  readonly type: Answered<this['row']>;
}

/** The database, or a transaction in it: queries take either. */
export type Database = PgDatabase<Rows, typeof schema>;

/** An open database that has to be closed. */
export interface OpenDatabase {
  readonly db: Database;
  readonly close: () => Promise<void>;
  /** How it is had together with other processes; null for one that this process has to itself. */
  readonly together: Together | null;
}

/** What one process does for all of them. */
export type Job = 'orders' | 'snapshot';

/** What processes tell one another: at most once, and not what is told while a connection is lost. */
export interface Words {
  /** At most 8,000 bytes. Whoever tells hears it as well. */
  readonly tell: (text: string) => Promise<void>;
  readonly hear: (told: (text: string) => void) => void;
}

/** What it takes to have a database together with other processes. */
export interface Together {
  /**
   * Does a work that writes while no other process does one. What it sends goes over the connection that holds the lock, so
   * that whoever loses the lock can't write.
   */
  readonly alone: <T>(work: (db: Database) => Promise<T>) => Promise<T>;
  /** Reads everything as it was at one moment. */
  readonly atOnce: <T>(read: (db: Database) => Promise<T>) => Promise<T>;
  /** Asks for the number of the log's latest entry; rejects where that takes longer than it may. */
  readonly lastNumber: () => Promise<number>;
  /** Calls back whenever something may have been written; until the database is closed. */
  readonly listen: (heard: () => void) => void;
  readonly words: Words;
  /** Does a job unless another process is doing it. */
  readonly unlessAnother: (job: Job, work: () => Promise<void>) => Promise<void>;
}

/** Why a database can't be used, as a sentence that says how to mend it. */
export class NotOpened extends Error {
  constructor(sentence: string) {
    super(sentence);
    this.name = 'NotOpened';
  }
}

/** Asks the database for nothing, which it answers if it answers anything. */
export async function ping(db: Database): Promise<void> {
  await db.execute(sql`select 1`);
}
