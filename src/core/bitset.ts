/** Sets as bits: bit `i % 32` of word `i >> 5` stands for whoever or whatever is at place `i`. Bits beyond the last are 0. */
export type Bitset = Uint32Array;

export const emptyBitset = (size: number): Bitset => new Uint32Array((size + 31) >>> 5);

/** All of them. */
export function fullBitset(size: number): Bitset {
  const bits = emptyBitset(size).fill(0xffffffff);
  const rest = size & 31;
  if (rest > 0) bits[bits.length - 1] = 2 ** rest - 1;
  return bits;
}

/** How many bits of a word are set (H. S. Warren, Hacker's Delight, §5-1). */
export function popcount(word: number): number {
  let x = word - ((word >>> 1) & 0x55555555);
  x = (x & 0x33333333) + ((x >>> 2) & 0x33333333);
  x = (x + (x >>> 4)) & 0x0f0f0f0f;
  return Math.imul(x, 0x01010101) >>> 24;
}

/** How many are in a set. */
export function countOf(bits: Bitset): number {
  let count = 0;
  for (let at = 0; at < bits.length; at++) count += popcount(bits[at] as number);
  return count;
}

// Plain loops: a callback for each word takes ten times as long, and there may be a million.

/** Those in `a` that are not in `b`. */
export function without(a: Bitset, b: Bitset): Bitset {
  const out = new Uint32Array(a.length);
  for (let at = 0; at < out.length; at++) out[at] = (a[at] as number) & ~(b[at] as number);
  return out;
}

/** Those in both. */
export function both(a: Bitset, b: Bitset): Bitset {
  const out = new Uint32Array(a.length);
  for (let at = 0; at < out.length; at++) out[at] = (a[at] as number) & (b[at] as number);
  return out;
}

/** The places of those in a set, in order. */
export function* placesIn(bits: Bitset): Generator<number> {
  for (let at = 0; at < bits.length; at++) {
    let word = bits[at] as number;
    while (word !== 0) {
      const lowest = word & -word;
      yield at * 32 + (31 - Math.clz32(lowest));
      word ^= lowest;
    }
  }
}

/** Whether whoever is at a place is in a set. */
export const hasPlace = (bits: Bitset, place: number): boolean =>
  (((bits[place >>> 5] ?? 0) >>> (place & 31)) & 1) === 1;

/** Adds what is in a set to another, in place. */
export function addTo(target: Bitset, more: Bitset): void {
  for (let at = 0; at < target.length; at++) target[at] = (target[at] as number) | (more[at] as number);
}

export function isEmpty(bits: Bitset): boolean {
  for (let at = 0; at < bits.length; at++) if (bits[at] !== 0) return false;
  return true;
}

export function sameBits(a: Bitset, b: Bitset): boolean {
  if (a === b) return true;
  if (a.length !== b.length) return false;
  for (let at = 0; at < a.length; at++) if (a[at] !== b[at]) return false;
  return true;
}
