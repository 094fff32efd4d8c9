/**
 * A running Trivet: the open database, the site in memory and the sessions seen lately. Every service takes one.
 */
import { AsyncLocalStorage } from 'node:async_hooks';
import { LRUCache } from 'lru-cache';
import type { PassphraseId, PersonId } from '@/core';
import {
  type Changes,
  type Database,
  forgetChanges,
  type Job,
  lastChange,
  type OpenDatabase,
  openDatabase,
  readChangesSince,
  readSnapshot,
  type Session,
  type Walk,
} from '@/store';
import { indexOnce } from '../texts';
import { Currency } from './currency';
import { Journal } from './journal';
import { readSiteState, type SiteState, withChanges } from './site-state';

const MOST_SESSIONS = 10_000;
const KEPT_BYTES = 64_000_000;
/** After how many entries of the log the oldest are forgotten. */
const FORGET_AFTER = 1000;

/** The one resource that services work with. Owns the database and has to be closed. */
export class Trivet {
  #state: SiteState | null = null;
  /** Up to which number of the log of changes that is. */
  #number = 0;
  #forgotten = 0;
  #unheld: symbol | null = null;
  #isClosed = false;
  #queue: Promise<unknown> = Promise.resolve();
  #reading: Promise<unknown> = Promise.resolve();
  #endings = 0;
  /** The connection that a change of this process writes over, for as long as that goes on. */
  readonly #alone = new AsyncLocalStorage<{ db: Database | null }>();
  /** Whether memory is what the database holds, where other processes write to it as well. */
  readonly currency: Currency | null;
  /** Sessions by the hash of their token; those not seen for longest are dropped, and read again when they come back. */
  readonly sessions = new LRUCache<string, Session>({ max: MOST_SESSIONS });

  /** Whose keys are, by what they are for and their hash, kept the same way. */
  readonly keys = new LRUCache<string, PersonId>({ max: MOST_SESSIONS });

  /** Walks by the hash of their token, kept the same way. */
  readonly walks = new LRUCache<string, Walk>({ max: MOST_SESSIONS });
  readonly journal = new Journal();

  private constructor(
    private readonly opened: OpenDatabase,
    /** How many bytes of documents may be kept in memory; none keeps nothing. */
    readonly keptBytes: number,
    /** Where whoever has the machine leaves word for it; null where that is nowhere. */
    readonly dataFolder: string | null,
  ) {
    if (opened.together) this.journal.joins(opened.together.words);
    this.currency = opened.together && new Currency(opened.together, (number) => this.#catchUpTo(number));
  }

  /** Opens a database in a folder, on a server, or a fresh one in memory for `null`; reads the site, if any. */
  static open = async (where: string | null, keptBytes?: number, dataFolder?: string): Promise<Trivet> =>
    Trivet.over(await openDatabase(where), keptBytes, dataFolder);

  /** The same over a database that is open. */
  static async over(
    opened: OpenDatabase,
    keptBytes = KEPT_BYTES,
    dataFolder: string | null = null,
  ): Promise<Trivet> {
    const trivet = new Trivet(opened, keptBytes, dataFolder);
    await trivet.reload();
    trivet.currency?.begin();
    return trivet;
  }

  /** Where queries go. Within a change that is the connection that may write. */
  get db(): Database {
    return this.#alone.getStore()?.db ?? this.opened.db;
  }

  /** Whether a site has been loaded. */
  get hasSite(): boolean {
    return this.#state !== null;
  }

  /** The site as it is now. Take it once per request and work with that. */
  get state(): SiteState {
    if (!this.#state) throw new Error('This data folder holds no site yet. Load one first.');
    return this.#state;
  }

  /** The site as it is now, and up to which number of the log of changes that is. */
  get known(): { readonly state: SiteState; readonly number: number } {
    return { state: this.state, number: this.#number };
  }

  /** A mark of the reading in which people came from a snapshot that nobody has held against the tables since; null for none. */
  get unheld(): symbol | null {
    return this.#unheld;
  }

  get isClosed(): boolean {
    return this.#isClosed;
  }

  /** Looks at memory and at the database while memory is what that holds. */
  whileCurrent<T>(look: (db: Database, state: SiteState) => Promise<T>): Promise<T> {
    return this.#inTurn(async (db) => {
      await this.#takeIn(db);
      return look(db, this.state);
    });
  }

  /** Says that what came from a snapshot in that reading is what the tables hold. */
  holds(reading: symbol): void {
    if (this.#unheld === reading) this.#unheld = null;
  }

  /** Reads the whole site again. */
  async reload(): Promise<void> {
    await this.#inTurn((db) => this.#readAll(db));
    if (this.#state) await indexOnce(this.db, this.#state, this.#state.live.compiled.vocabulary);
    this.walks.clear();
  }

  /** Runs a change, one at a time among all processes, and then puts what it changed into memory. */
  change<T>(work: (state: SiteState) => Promise<T>): Promise<T> {
    return this.alone(() => work(this.state));
  }

  /** The same where there may be no site yet. */
  alone<T>(work: () => Promise<T>): Promise<T> {
    const { together } = this.opened;
    const turn = this.#queue.then(() =>
      together ? together.alone((db) => this.#aloneOver(db, work)) : this.#aloneHere(work),
    );
    this.#queue = turn.catch(() => undefined);
    return turn;
  }

  /** Does a job unless another process is doing it. */
  unlessAnother(job: Job, work: () => Promise<void>): Promise<void> {
    return this.opened.together ? this.opened.together.unlessAnother(job, work) : work();
  }

  async #aloneHere<T>(work: () => Promise<T>): Promise<T> {
    try {
      return await work();
    } finally {
      await this.#catchUp();
    }
  }

  /** Over a connection that nobody else writes beside; what others wrote is in memory before. */
  async #aloneOver<T>(db: Database, work: () => Promise<T>): Promise<T> {
    await this.#catchUp();
    const held: { db: Database | null } = { db };
    try {
      return await this.#alone.run(held, work);
    } finally {
      // What the work left behind, a timer for one, is not to write over it any more.
      held.db = null;
      // What was done is done, and nothing is answered from before it.
      await this.#catchUp().catch(() => this.currency?.lapse());
    }
  }

  async #catchUpTo(number: number): Promise<boolean> {
    if (number === this.#number) return false;
    await this.#catchUp();
    return true;
  }

  /** Puts into memory what the log tells of. */
  #catchUp(): Promise<void> {
    return this.#inTurn((db) => this.#takeIn(db));
  }

  /** Reads for memory, once at a time: nothing that was begun before is put over what was read after it. */
  #inTurn<T>(read: (db: Database) => Promise<T>): Promise<T> {
    const done = this.#reading.then(() => {
      const { together } = this.opened;
      return together ? together.atOnce(read) : read(this.opened.db);
    });
    this.#reading = done.catch(() => undefined);
    return done;
  }

  async #takeIn(db: Database): Promise<void> {
    const changes = await readChangesSince(db, this.#number);
    if (changes?.number === this.#number) return;
    const next = changes && (await this.#stateWith(db, changes));
    if (!changes || !next) return this.#readAll(db);
    this.#state = next;
    this.#number = changes.number;
    for (const session of changes.sessions) this.forgetSession(session);
    if (changes.keys.length > 0) this.forgetKeys();
    if (this.#number - this.#forgotten < FORGET_AFTER) return;
    this.#forgotten = this.#number;
    await forgetChanges(this.opened.db, this.#number);
  }

  /** Null where everything has to be read. */
  #stateWith(db: Database, changes: Changes): Promise<SiteState | null> | null {
    return this.#state && withChanges(this.#state, db, changes);
  }

  async #readAll(db: Database): Promise<void> {
    // What changes while everything is read is told of again.
    const number = await lastChange(db);
    const snapshot = await readSnapshot(db);
    const state = await readSiteState(db, snapshot);
    if (!state && this.#state) throw new Error('The site is gone from the database.');
    this.#state = state;
    this.#number = number;
    this.#unheld = snapshot && Symbol('reading');
    this.readSessionsAgain();
    this.forgetKeys();
  }

  /** How often sessions or keys ended or changed: whoever reads one meanwhile can't know whether it was that one. */
  get endings(): number {
    return this.#endings;
  }

  rememberSession(session: Session): void {
    this.sessions.set(session.tokenHash, session);
  }

  rememberWalk(walk: Walk): void {
    this.walks.set(walk.tokenHash, walk);
  }

  /** Forgets a session, and with it the walks that belong to it. */
  forgetSession(tokenHash: string): void {
    this.#endings += 1;
    this.sessions.delete(tokenHash);
    for (const [hash, walk] of this.walks) if (walk.session === tokenHash) this.walks.delete(hash);
  }

  /** Asks for every key again: some were taken back. */
  forgetKeys(): void {
    this.#endings += 1;
    this.keys.clear();
  }

  /** Asks for a session again when it comes back: it has changed. */
  readSessionAgain(tokenHash: string): void {
    this.#endings += 1;
    this.sessions.delete(tokenHash);
  }

  /** Asks for every session again: they have changed. */
  readSessionsAgain(): void {
    this.#endings += 1;
    this.sessions.clear();
  }

  /** Forgets somebody's sessions, so that they are asked for again. */
  forgetSessionsOf(person: PersonId): void {
    this.#endings += 1;
    for (const [hash, session] of this.sessions) if (session.person === person) this.forgetSession(hash);
  }

  /** Forgets the sessions in which a passphrase was typed, so that they are asked for again. */
  forgetSessionsKnowing(passphrase: PassphraseId): void {
    this.#endings += 1;
    for (const [hash, { passphrases }] of this.sessions)
      if (passphrases.includes(passphrase)) this.sessions.delete(hash);
  }

  async close(): Promise<void> {
    this.#isClosed = true;
    this.currency?.end();
    if (this.#state) await this.journal.flush(this, new Date());
    await this.opened.close();
  }
}
