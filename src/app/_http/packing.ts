/** Which bodies are packed for the way, and for whom. */
import { LRUCache } from 'lru-cache';

/** What a tag ends with that was given for a packed body. */
export const PACKED_TAG = '-gz"';

/** Bodies shorter than this gain nothing by being packed. */
const LEAST_PACKED = 1000;
const PACKED = /^(text\/|application\/(json|feed\+json|rss\+xml|xml|problem\+json))/;

/** Whether a body of a media type may go out packed. */
export const canPack = (type: string | null): boolean => PACKED.test(type ?? '');

/** Whether packing a body of a media type and length in bytes gains something. */
export const packs = (type: string | null, length: number): boolean =>
  canPack(type) && length >= LEAST_PACKED;

/** Whether gzip is among the codings that are taken (RFC 9110 §12.5.3). */
export function wantsPacked(header: string | string[] | undefined): boolean {
  if (header === undefined) return false;
  const text = String(header);
  const found = known.get(text);
  if (found !== undefined) return found;
  const codings = text.split(',').map((one) =>
    one
      .trim()
      .toLowerCase()
      .split(/\s*;\s*/),
  );
  const of = (name: string) => codings.find(([coding]) => coding === name);
  const taken = of('gzip') ?? of('*');
  const wanted = taken !== undefined && !/^q=0(\.0*)?$/.test(taken[1] ?? '');
  known.set(text, wanted);
  return wanted;
}

// Browsers write it in few ways.
const known = new LRUCache<string, boolean>({ max: 100 });
