/**
 * A table from pairs of whole numbers to whole numbers, all of them at least 0 and below 2³¹ − 1: open addressing with linear
 * probing, in typed arrays, so that millions of entries are no work for the garbage collector.
 */
const SMALLEST = 1 << 10;
/** More than this part of the places is never taken. */
const FULLEST = 0.6;
const NONE = -1;
/** So many places are kept when a table is emptied. */
const LARGEST_KEPT = 1 << 18;

export class PairTable {
  /** Of each place both numbers of its key; the first one more than it is, so that nought is a free place. */
  #keys = new Int32Array(2 * SMALLEST);
  #values = new Int32Array(SMALLEST);
  #taken = 0;

  /** What stands for a pair; -1 where nothing does. */
  get(a: number, b: number): number {
    const place = this.#placeOf(a, b);
    return this.#keys[2 * place] === 0 ? NONE : (this.#values[place] ?? NONE);
  }

  set(a: number, b: number, value: number): void {
    if (this.#taken >= FULLEST * this.#values.length) this.#grow();
    const place = this.#placeOf(a, b);
    if (this.#keys[2 * place] === 0) {
      this.#taken += 1;
      this.#keys[2 * place] = a + 1;
      this.#keys[2 * place + 1] = b;
    }
    this.#values[place] = value;
  }

  /** Takes a pair out; its place is kept for it. */
  delete(a: number, b: number): void {
    const place = this.#placeOf(a, b);
    if (this.#keys[2 * place] !== 0) this.#values[place] = NONE;
  }

  /** What had room for so much will have to again; what is very large is given back. */
  clear(): void {
    this.#taken = 0;
    if (this.#values.length <= LARGEST_KEPT) this.#keys.fill(0);
    else {
      this.#keys = new Int32Array(2 * SMALLEST);
      this.#values = new Int32Array(SMALLEST);
    }
  }

  /** Where a pair stands, or would. */
  #placeOf(a: number, b: number): number {
    const keys = this.#keys;
    const mask = this.#values.length - 1;
    let hash = Math.imul(a + 1, 0x9e3779b1) ^ Math.imul(b, 0x85ebca6b);
    hash ^= hash >>> 15;
    let place = hash & mask;
    for (;;) {
      const first = keys[2 * place];
      if (first === 0 || (first === a + 1 && keys[2 * place + 1] === b)) return place;
      place = (place + 1) & mask;
    }
  }

  #grow(): void {
    const [keys, values] = [this.#keys, this.#values];
    this.#keys = new Int32Array(2 * keys.length);
    this.#values = new Int32Array(2 * values.length);
    this.#taken = 0;
    for (let place = 0; place < values.length; place++) {
      const [first = 0, second = 0, value = NONE] = [keys[2 * place], keys[2 * place + 1], values[place]];
      if (first !== 0 && value !== NONE) this.set(first - 1, second, value);
    }
  }
}
