/**
 * Whether memory is what the database holds, where several processes have it together. Each asks how far the log of changes is
 * when it hears that it goes on, and a few times a second whether it heard or not; so what was put live, taken away or signed
 * out on one holds on all within a second. Who can't ask doesn't answer.
 */
import { setTimeout as passed } from 'node:timers/promises';
import type { Together } from '@/store';
import { noteTrouble } from './trouble';

/** Nothing is answered from memory of which is not known what it is for longer, in milliseconds. */
const CURRENT_MS = 1000;
/** How often the database is asked without anything being heard, in milliseconds. */
const ASKING_MS = 250;

export class Currency {
  /** When the question was sent that memory was last known by, by the clock that is never set. */
  #asOf = Number.NEGATIVE_INFINITY;
  /** Questions that were sent before count for nothing. */
  #from = Number.NEGATIVE_INFINITY;
  #asking: Promise<void> | null = null;
  #again = false;
  #missed = false;
  #timer: NodeJS.Timeout | null = null;
  #ended = false;
  /** How long whoever asks for something waits for the database to be there again, in milliseconds. */
  patienceMs = 5000;
  /** Called when memory has taken in what others wrote. */
  caughtUp: () => void = () => undefined;

  constructor(
    private readonly together: Together,
    /** Answers whether there was anything. */
    private readonly catchUpTo: (number: number) => Promise<boolean>,
  ) {}

  /** From now on memory follows the log. */
  begin(): void {
    this.together.listen(() => this.#hear());
    this.#soon(0);
  }

  /** Nothing is answered from memory before the database was asked again. */
  lapse(): void {
    this.#asOf = Number.NEGATIVE_INFINITY;
    this.#from = performance.now();
  }

  end(): void {
    this.#ended = true;
    if (this.#timer) clearTimeout(this.#timer);
  }

  /** Whether memory was what the database held less than a second ago. */
  get isCurrent(): boolean {
    return performance.now() - this.#asOf < CURRENT_MS;
  }

  /** Waits until memory is what the database holds; false where that can’t be had in time. */
  async becomesCurrent(): Promise<boolean> {
    const until = performance.now() + this.patienceMs;
    while (!this.isCurrent) {
      const left = until - performance.now();
      if (left <= 0 || this.#ended) return false;
      await Promise.race([this.#ask(), passed(left)]);
      if (!this.isCurrent) await passed(ASKING_MS / 5);
    }
    return true;
  }

  /** Something was written. What is asked already may have been answered before. */
  #hear(): void {
    if (this.#asking) this.#again = true;
    else void this.#ask();
  }

  #soon(ms: number): void {
    if (this.#ended) return;
    if (this.#timer) clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.#ask(), ms).unref();
  }

  /** Asks once; never rejects. */
  #ask(): Promise<void> {
    this.#asking ??= this.#askNow()
      .catch((error: unknown) => this.#miss(error))
      .then(() => {
        this.#asking = null;
        this.#soon(this.#again ? 0 : ASKING_MS);
        this.#again = false;
      });
    return this.#asking;
  }

  async #askNow(): Promise<void> {
    const sent = performance.now();
    if (await this.catchUpTo(await this.together.lastNumber())) this.caughtUp();
    if (sent >= this.#from) this.#asOf = sent;
    this.#missed = false;
  }

  /** Tells whoever runs the server once, each time the database can’t be asked for longer than it may. */
  #miss(error: unknown): void {
    if (this.#missed || this.#ended || this.isCurrent) return;
    this.#missed = true;
    noteTrouble('The database can’t be asked what holds. Until it can, nobody is answered.', error);
  }
}
