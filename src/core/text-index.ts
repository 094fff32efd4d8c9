/**
 * Which number belongs to which text, among very many: of a text only its hash is kept, so whoever asks has to look whether a
 * number is the one. It is in many short parts, of which a change copies one. A text takes about ten bytes.
 */

/** Pairs of a hash and a number, in as many parts as a power of two. */
export type TextIndex = readonly Uint32Array[];

/** How many texts are in a part, about, when it is made. */
const IN_A_PART = 32;
/** How many times as many there may be before it is slow. */
const CROWDED = 4;

/** Of texts’ hashes with the number of each. */
export function textIndex(hashes: readonly number[], numbers: readonly number[]): TextIndex {
  const parts = 2 ** Math.ceil(Math.log2(Math.max(1, hashes.length / IN_A_PART)));
  const sizes = new Uint32Array(parts);
  for (const hash of hashes) sizes[hash & (parts - 1)] = (sizes[hash & (parts - 1)] as number) + 2;
  const index = Array.from(sizes, (size) => new Uint32Array(size));
  sizes.fill(0);
  for (const [at, hash] of hashes.entries()) {
    const place = hash & (parts - 1);
    const from = sizes[place] as number;
    const part = index[place] as Uint32Array;
    part[from] = hash;
    part[from + 1] = numbers[at] as number;
    sizes[place] = from + 2;
  }
  return index;
}

/** Whether so many texts are too many for an index to be fast. */
export const isCrowded = (index: TextIndex, size: number): boolean =>
  size > CROWDED * IN_A_PART * index.length;

/** The first number of a text's hash that is the one. */
export function placeIn(
  index: TextIndex,
  text: string,
  isIt: (number: number) => boolean,
): number | undefined {
  const hash = hashOf(text);
  const part = index[hash & (index.length - 1)] as Uint32Array;
  for (let at = 0; at < part.length; at += 2) {
    const number = part[at + 1] as number;
    if (part[at] === hash && isIt(number)) return number;
  }
  return undefined;
}

/** Puts a copy of one part in its place, with a text. */
export function withEntry(index: Uint32Array[], text: string, number: number): void {
  const hash = hashOf(text);
  const place = hash & (index.length - 1);
  const part = index[place] as Uint32Array;
  const copy = new Uint32Array(part.length + 2);
  copy.set(part);
  copy.set([hash, number], part.length);
  index[place] = copy;
}

/** Puts a copy of one part in its place, without a text of that number. */
export function withoutEntry(index: Uint32Array[], text: string, number: number): void {
  const hash = hashOf(text);
  const place = hash & (index.length - 1);
  const part = index[place] as Uint32Array;
  for (let at = 0; at < part.length; at += 2) {
    if (part[at] !== hash || part[at + 1] !== number) continue;
    const copy = new Uint32Array(part.length - 2);
    copy.set(part.subarray(0, at));
    copy.set(part.subarray(at + 2), at);
    index[place] = copy;
    return;
  }
}

export function hashOf(text: string): number {
  let hash = 0x811c9dc5;
  for (let at = 0; at < text.length; at++) hash = Math.imul(hash ^ text.charCodeAt(at), 0x01000193);
  return (hash ^ (hash >>> 15)) >>> 0;
}
