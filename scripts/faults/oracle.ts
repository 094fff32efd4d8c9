/**
 * What answers may have been, while several processes changed one site and were killed meanwhile. Whatever is open or closed by
 * one thing alone is a register: it is written by one writer, one write after the other, and read by anybody. An answer is right
 * if what it said held at some moment from a second before it was asked for until it was there.
 */

/** How old the rights may be that an answer comes from, in milliseconds. */
export const OLDEST_MS = 1000;

export type Value = 'open' | 'closed';

/** A write, with the earliest and the latest moment at which it can have taken effect, in milliseconds. */
interface Write {
  readonly value: Value;
  readonly from: number;
  readonly to: number;
}

export interface Read {
  readonly asked: number;
  readonly answered: number;
  readonly value: Value;
  /** Who answered, to be told of. */
  readonly by: string;
}

export class Register {
  readonly #writes: Write[];
  readonly #reads: Read[] = [];

  constructor(
    readonly name: string,
    value: Value,
  ) {
    const always = Number.NEGATIVE_INFINITY;
    this.#writes = [{ value, from: always, to: always }];
  }

  /** What it was written last. */
  get value(): Value {
    return this.#writes.at(-1)?.value ?? 'closed';
  }

  /** Notes a write that did take effect, between when it was asked for and when that was known. */
  wrote(value: Value, from: number, to: number): void {
    this.#writes.push({ value, from, to });
  }

  read(read: Read): void {
    this.#reads.push(read);
  }

  get reads(): number {
    return this.#reads.length;
  }

  /** The reads that can’t have been right, each as a sentence. */
  wrongs(): readonly string[] {
    return this.#reads.flatMap((read) =>
      this.#mayBe(read)
        ? []
        : [
            `${this.name} was ${read.value} at ${read.by}, asked for at ${read.asked.toFixed(0)} and answered at ${read.answered.toFixed(0)}; ${this.#near(read)}`,
          ],
    );
  }

  #mayBe({ asked, answered, value }: Read): boolean {
    return this.#writes.some((write, at) => {
      const next = this.#writes[at + 1];
      return write.value === value && write.from <= answered && (!next || next.to >= asked - OLDEST_MS);
    });
  }

  #near({ asked, answered }: Read): string {
    const near = this.#writes.filter(({ from, to }) => to > asked - 5000 && from < answered + 1000);
    return near.length === 0
      ? `it was ${this.value} all the time`
      : near.map(({ value, from, to }) => `${value} from ${from.toFixed(0)}–${to.toFixed(0)}`).join(', ');
  }
}
