/**
 * A running Trivet: the open database, the site in memory and the sessions seen lately. Every service takes one.
 */
import { LRUCache } from 'lru-cache';
import type { PassphraseId, PersonId } from '@/core';
import {
  forgetChanges,
  lastChange,
  type OpenDatabase,
  openDatabase,
  readChangesSince,
  type Session,
  type Walk,
} from '@/store';
import { indexOnce } from '../texts';
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
  #queue: Promise<unknown> = Promise.resolve();
  #endings = 0;
  /** Sessions by the hash of their token; those not seen for longest are dropped, and read again when they come back. */
  readonly sessions = new LRUCache<string, Session>({ max: MOST_SESSIONS });

  /** Walks by the hash of their token, kept the same way. */
  readonly walks = new LRUCache<string, Walk>({ max: MOST_SESSIONS });
  readonly journal = new Journal();

  private constructor(
    private readonly opened: OpenDatabase,
    /** How many bytes of documents may be kept in memory; none keeps nothing. */
    readonly keptBytes: number,
    /** Where whoever has the machine leaves word for it; null where that is nowhere. */
    readonly dataFolder: string | null,
  ) {}

  /** Opens the data folder, a fresh database in memory for `null`, or one that begins as another; reads the site, if any. */
  static open = async (
    from: string | null | Blob,
    keptBytes?: number,
    dataFolder?: string,
  ): Promise<Trivet> => Trivet.over(await openDatabase(from), keptBytes, dataFolder);

  /** The same over a database that is open. */
  static async over(
    opened: OpenDatabase,
    keptBytes = KEPT_BYTES,
    dataFolder: string | null = null,
  ): Promise<Trivet> {
    const trivet = new Trivet(opened, keptBytes, dataFolder);
    await trivet.reload();
    return trivet;
  }

  get db() {
    return this.opened.db;
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

  /** Reads the whole site again. */
  async reload(): Promise<void> {
    await this.#readAll();
    if (this.#state) await indexOnce(this.db, this.#state, this.#state.live.compiled.vocabulary);
    this.#endings += 1;
    this.sessions.clear();
    this.walks.clear();
  }

  /** Runs a change, one at a time, and then puts what it changed into memory. */
  change<T>(work: (state: SiteState) => Promise<T>): Promise<T> {
    const turn = this.#queue.then(async () => {
      try {
        return await work(this.state);
      } finally {
        await this.#catchUp();
      }
    });
    this.#queue = turn.catch(() => undefined);
    return turn;
  }

  /** Puts into memory what the log tells of. */
  async #catchUp(): Promise<void> {
    const changes = await readChangesSince(this.db, this.#number);
    if (changes?.number === this.#number) return;
    const next = changes && (await withChanges(this.state, this.db, changes));
    if (!changes || !next) return this.#readAll();
    this.#state = next;
    this.#number = changes.number;
    if (this.#number - this.#forgotten < FORGET_AFTER) return;
    this.#forgotten = this.#number;
    await forgetChanges(this.db, this.#number);
  }

  async #readAll(): Promise<void> {
    // What changes while everything is read is told of again.
    const number = await lastChange(this.db);
    const state = await readSiteState(this.db);
    if (!state && this.#state) throw new Error('The site is gone from the database.');
    this.#state = state;
    this.#number = number;
  }

  /** How often sessions ended or changed: whoever reads one meanwhile can't know whether it was that one. */
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

  /** Everything it holds, for another to begin with. */
  dump(): Promise<Blob> {
    return this.opened.dump();
  }

  async close(): Promise<void> {
    if (this.#state) await this.journal.flush(this, new Date());
    await this.opened.close();
  }
}
