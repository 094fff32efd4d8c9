/**
 * Who was turned away and may come back: on this process, and on those that have the database together with it, as far as they
 * tell one another. Whoever was turned away first counts what becomes of it, so that it is counted once.
 */
import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import type { Words } from '@/store';

/** What somebody did after they were turned away; who did nothing more left. */
export type Next = 'left' | 'signedIn' | 'signedUp' | 'gotIn';

/** Whoever comes back later than this is somebody new. */
export const PATIENCE_MS = 30 * 60_000;
const MOST_WAITING = 20_000;
const RANK: Readonly<Record<Next, number>> = { left: 0, signedIn: 1, signedUp: 2, gotIn: 3 };

/** How long something waits to be told to others, with what else there is to tell by then. */
const TELLING_MS = 100;
/** What is told at once, in bytes; a notice of PostgreSQL's has at most 8,000. And so much of that at a time: more is not told. */
const LARGEST_NOTICE = 7500;
const MOST_NOTICES = 20;

/** What one process tells the others. */
const word = z.union([
  /** Somebody waits outside of an item. */
  z.tuple([z.literal('waits'), z.string(), z.string()]),
  /** They are in, wherever they were turned away. */
  z.tuple([z.literal('in'), z.string(), z.string()]),
  /** A browser took a step. */
  z.tuple([z.literal('step'), z.string(), z.enum(['signedIn', 'signedUp'])]),
]);
type Word = z.infer<typeof word>;
const notice = z.strictObject({ from: z.string(), words: z.array(word) });

interface Waiting<Counted> {
  readonly counted: Counted;
  readonly since: number;
  did: Next;
}

/** Browsers by a hash of theirs, items by their ids. `Counted` is what is counted apart. */
export class Outside<Counted> {
  /** Those who were turned away here, in the order in which they came. */
  readonly #here = new Map<string, Waiting<Counted>>();
  /** Since when those wait, as far as is told, who were turned away elsewhere. */
  readonly #elsewhere = new Map<string, number>();
  /** How many of both wait outside of each item. */
  readonly #outside = new Map<string, number>();
  readonly #name = randomUUID();
  #words: Words | null = null;
  #telling: NodeJS.Timeout | null = null;
  #toTell: Word[] = [];

  /** `settled` is told what somebody did, once it is known. */
  constructor(private readonly settled: (counted: Counted, did: Next) => void) {}

  /** From now on others are told, and heard. */
  tells(words: Words): void {
    this.#words = words;
    words.hear((text) => this.#hear(text));
  }

  /** Whether anybody waits outside of an item. */
  has = (item: string): boolean => this.#outside.has(item);

  /** Somebody was turned away. Whoever tries again is still the same visitor who waits outside. */
  add(browser: string, item: string, counted: Counted, now: number): void {
    const key = keyOf(browser, item);
    if (this.#here.has(key) || this.#elsewhere.has(key)) return;
    this.#here.set(key, { counted, since: now, did: 'left' });
    this.#count(item, 1);
    this.#tell(['waits', browser, item]);
  }

  /** Somebody is in; nothing where they were not outside. */
  letIn(browser: string, item: string): void {
    const key = keyOf(browser, item);
    if (!this.#here.has(key) && !this.#elsewhere.has(key)) return;
    this.#settle(key, 'gotIn');
    this.#forget(key);
    this.#tell(['in', browser, item]);
  }

  /** Somebody took a step towards everything that they were turned away from. */
  step(browser: string, did: 'signedIn' | 'signedUp'): void {
    this.#take(browser, did);
    const prefix = keyOf(browser, '');
    for (const key of this.#elsewhere.keys())
      if (key.startsWith(prefix)) {
        this.#tell(['step', browser, did]);
        break;
      }
  }

  /** Those who have been away for too long have left; so have the first where there are more than can be kept in mind. */
  expire(now: number): void {
    const isOver = (since: number, size: number) => now - since >= PATIENCE_MS || size > MOST_WAITING;
    for (const [key, { since }] of this.#here) {
      if (!isOver(since, this.#here.size)) break;
      this.#settle(key, null);
    }
    for (const [key, since] of this.#elsewhere) {
      if (!isOver(since, this.#elsewhere.size)) break;
      this.#forget(key);
    }
  }

  /** Tells the others now what is to be told; never rejects. What does not get through is counted as of somebody new. */
  async tellNow(): Promise<void> {
    if (this.#telling) clearTimeout(this.#telling);
    this.#telling = null;
    const notices = this.#notices();
    await Promise.all(notices.map((text) => this.#words?.tell(text).catch(() => undefined)));
  }

  #notices(): readonly string[] {
    const notices: string[] = [];
    let words: Word[] = [];
    let size = 0;
    const close = () => {
      if (words.length > 0) notices.push(JSON.stringify({ from: this.#name, words }));
      words = [];
      size = 100;
    };
    close();
    for (const one of this.#toTell.splice(0)) {
      const more = Buffer.byteLength(JSON.stringify(one)) + 1;
      if (size + more > LARGEST_NOTICE) close();
      words.push(one);
      size += more;
    }
    close();
    return notices.slice(0, MOST_NOTICES);
  }

  #tell(one: Word): void {
    if (this.#words === null || this.#toTell.length >= MOST_WAITING) return;
    this.#toTell.push(one);
    this.#telling ??= setTimeout(() => void this.tellNow(), TELLING_MS).unref();
  }

  #hear(text: string): void {
    const read = notice.safeParse(parsed(text));
    // A process hears itself as well.
    if (!read.success || read.data.from === this.#name) return;
    const now = Date.now();
    for (const one of read.data.words) {
      if (one[0] === 'step') {
        this.#take(one[1], one[2]);
        continue;
      }
      const key = keyOf(one[1], one[2]);
      if (one[0] === 'in') {
        this.#settle(key, 'gotIn');
        this.#forget(key);
      } else if (!this.#elsewhere.has(key)) {
        this.#elsewhere.set(key, now);
        this.#count(one[2], 1);
      }
    }
  }

  #take(browser: string, did: Next): void {
    const prefix = keyOf(browser, '');
    for (const [key, waiting] of this.#here)
      if (key.startsWith(prefix) && RANK[did] > RANK[waiting.did]) waiting.did = did;
  }

  /** What somebody did is counted once, when it is known; `null` takes what they did so far. */
  #settle(key: string, did: Next | null): void {
    const waiting = this.#here.get(key);
    if (!waiting) return;
    this.#here.delete(key);
    this.#count(itemOf(key), -1);
    this.settled(waiting.counted, did ?? waiting.did);
  }

  #forget(key: string): void {
    if (this.#elsewhere.delete(key)) this.#count(itemOf(key), -1);
  }

  #count(item: string, more: number): void {
    const now = (this.#outside.get(item) ?? 0) + more;
    if (now > 0) this.#outside.set(item, now);
    else this.#outside.delete(item);
  }
}

const keyOf = (browser: string, item: string): string => `${browser} ${item}`;
const itemOf = (key: string): string => key.slice(key.indexOf(' ') + 1);

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
