/** The order of two texts letter by letter, as a database without a language sorts them: by code points, not by halves of them. */
export function byCodePoints(a: string, b: string): number {
  const length = Math.min(a.length, b.length);
  for (let at = 0; at < length; at++) {
    const [one, other] = [a.charCodeAt(at), b.charCodeAt(at)];
    if (one !== other) return rank(one) - rank(other);
  }
  return a.length - b.length;
}

/** Halves of a code point come after all that need none. */
const rank = (unit: number): number => (unit < 0xd800 ? unit : unit < 0xe000 ? unit + 0x2000 : unit - 0x800);
