/**
 * Where visitors are turned away, and what they do next. Counts are kept by day, item, gate and what was given; who it was is
 * known only for as long as they may come back, in memory, by a key that dies with the process, or that processes have together
 * who serve one site. Members are named only where the site has set so.
 */
import { hash, hkdfSync, randomBytes } from 'node:crypto';
import { type Decision, type ItemId, outcomeOf, type PersonId } from '@/core';
import {
  addToJournal,
  forgetAreaVisits,
  forgetJournal,
  type JournalCount,
  noteAreaVisits,
  type Words,
} from '@/store';
import { areaVisited } from './area-visits';
import { momentAt } from './clock';
import { type Next, Outside } from './outside';
import type { SiteState } from './site-state';
import type { Trivet } from './trivet';

/** What is counted apart. */
type Counted = Omit<JournalCount, 'count' | Next>;

const NONE = { count: 0, left: 0, signedIn: 0, signedUp: 0, gotIn: 0 } satisfies Record<
  'count' | Next,
  number
>;
const TALLIES = Object.keys(NONE) as readonly ('count' | Next)[];

/** In place of an item: addresses that were never there. */
export const NOWHERE = '';

const FLUSH_MS = 5000;

/** A visit as the journal sees it. */
export interface Visit {
  /** What tells one browser from others for a while: its network address and how it names itself. */
  readonly browser: string;
  readonly person: PersonId | null;
  readonly now: Date;
}

/** The journal of a running site. Counts wait in memory for a few seconds before they are written. */
export class Journal {
  readonly #key = randomBytes(32).toString('base64url');
  /** The key that processes have who have the site together, once it was asked for. */
  #shared: { readonly of: string; readonly key: string } | null = null;
  #tells = false;
  readonly #outside = new Outside<Counted>((counted, did) => this.#add({ ...counted, [did]: 1 }));
  #counts = new Map<string, Counted & Record<'count' | Next, number>>();
  #names = new Map<string, { day: string; item: string; gate: string; person: PersonId; count: number }>();
  /** The last day on which each area was opened, as far as this process knows; and what of that is not written yet. */
  readonly #visited = new Map<ItemId, string>();
  #visits = new Map<ItemId, string>();
  #flushing: NodeJS.Timeout | null = null;
  #forgotten = '';

  /** From now on it is one journal with those of other processes. */
  joins(words: Words): void {
    this.#tells = true;
    this.#outside.tells(words);
  }

  /**
   * Notes what a visitor got for an item they asked for, or where there was none (null). Both are the same work and are
   * written at the same time, so that the journal does not tell what is missing from what was never there.
   */
  note(trivet: Trivet, visit: Visit, item: ItemId | null, decision: Decision): void {
    const { state } = trivet;
    if (state.settings.journal === 'off') return;
    const now = visit.now.getTime();
    this.#outside.expire(now);
    if (decision.kind === 'open' && item !== null && visit.person !== null)
      this.#noteArea(trivet, visit.person, item, visit.now);
    // Where nobody waits outside nobody has got in.
    if (decision.kind === 'open' && !this.#outside.has(item ?? NOWHERE)) return;
    const browser = this.#browser(trivet, visit);
    if (decision.kind === 'open') this.#outside.letIn(browser, item ?? NOWHERE);
    else {
      const counted = {
        day: momentAt(state, visit.now).today,
        item: item ?? NOWHERE,
        gate: decision.because.kind === 'gate' ? (decision.because.gate as string) : '',
        given: outcomeOf(decision),
        visitor: visit.person === null ? ('guest' as const) : ('member' as const),
      };
      this.#add({ ...counted, count: 1 });
      this.#outside.add(browser, counted.item, counted, now);
      if (state.settings.journal === 'names' && visit.person !== null) this.#addName(counted, visit.person);
    }
    this.#flushSoon(trivet);
  }

  /** No page waits for the journal, and none fails with it: what could not be written is tried again. */
  #flushSoon(trivet: Trivet): void {
    this.#flushing ??= setTimeout(
      () => this.flush(trivet, new Date()).catch(() => undefined),
      FLUSH_MS,
    ).unref();
  }

  /** Notes the day on which an area was opened by one of its people, once a day. */
  #noteArea(trivet: Trivet, person: PersonId, item: ItemId, now: Date): void {
    const { today } = momentAt(trivet.state, now);
    const area = areaVisited(trivet.state, person, item, today);
    if (area === null || this.#visited.get(area) === today) return;
    this.#visited.set(area, today);
    this.#visits.set(area, today);
    this.#flushSoon(trivet);
  }

  /** Notes that a visitor took a step towards what they were turned away from. */
  step(trivet: Trivet, visit: Visit, did: 'signedIn' | 'signedUp'): void {
    this.#outside.step(this.#browser(trivet, visit), did);
  }

  /** Writes what waits in memory, and forgets what is too old. */
  async flush(trivet: Trivet, now: Date): Promise<void> {
    if (this.#flushing) clearTimeout(this.#flushing);
    this.#flushing = null;
    this.#outside.expire(now.getTime());
    const counts = [...this.#counts.values()];
    const names = [...this.#names.values()];
    this.#counts = new Map();
    this.#names = new Map();
    const visits = this.#visits;
    this.#visits = new Map();
    try {
      await addToJournal(trivet.db, counts, names);
      await noteAreaVisits(trivet.db, visits);
    } catch (error) {
      this.#visits = new Map([...visits, ...this.#visits]);
      for (const one of counts) this.#add(one);
      for (const one of names) this.#addName(one, one.person, one.count);
      throw error;
    }
    const { today } = momentAt(trivet.state, now);
    if (this.#forgotten === today) return;
    this.#forgotten = today;
    await forgetOld(trivet, trivet.state, now);
  }

  #browser({ state }: Trivet, { browser }: Visit): string {
    const key = this.#tells ? this.#sharedKey(state.settings.shareKey) : this.#key;
    return hash('sha256', key + browser, 'base64url').slice(0, 16);
  }

  #sharedKey(shareKey: string): string {
    if (this.#shared?.of !== shareKey) {
      const key = hkdfSync('sha256', shareKey, '', 'who waits outside', 32);
      this.#shared = { of: shareKey, key: Buffer.from(key).toString('base64url') };
    }
    return this.#shared.key;
  }

  #add(one: Counted & Partial<Record<'count' | Next, number>>): void {
    const { day, item, gate, given, visitor } = one;
    const key = `${day}\n${item}\n${gate}\n${given}\n${visitor}`;
    const sum = this.#counts.get(key) ?? { day, item, gate, given, visitor, ...NONE };
    for (const tally of TALLIES) sum[tally] += one[tally] ?? 0;
    this.#counts.set(key, sum);
  }

  #addName({ day, item, gate }: Pick<Counted, 'day' | 'item' | 'gate'>, person: PersonId, more = 1): void {
    const key = JSON.stringify([day, item, gate, person]);
    const count = (this.#names.get(key)?.count ?? 0) + more;
    this.#names.set(key, { day, item, gate, person, count });
  }
}

/** Forgets what is older than the site keeps its journal, and names where none are kept. */
export async function forgetOld(trivet: Trivet, { settings }: SiteState, now: Date): Promise<void> {
  const oldest = new Date(now.getTime() - settings.journalDays * 86_400_000);
  const before = settings.journal === 'off' ? '9999-12-31' : momentAt(trivet.state, oldest).today;
  await forgetJournal(trivet.db, before, settings.journal === 'names');
  if (settings.journal === 'off') await forgetAreaVisits(trivet.db);
}
