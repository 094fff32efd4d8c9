/** Where what was found stands in a site: a tree of places, made of paths. */
import slugify from '@sindresorhus/slugify';
import { normaliseAddress } from '@/core';
import type { Note } from '../texts';
import type { FoundText } from './material';
import { MOST_ITEMS } from './source';

/** A place in the tree. Its parts are addresses' parts; none for the first page. */
export interface Place {
  readonly key: string;
  /** What stands there; null for a folder without a page of its own. */
  readonly text: FoundText | null;
  readonly title: string;
  readonly parts: readonly string[];
  /** The place above; null where it stands at the top. */
  parent: Place | null;
  readonly notes: Note[];
  /** An address that it asks for itself. */
  readonly asks: string | null;
  /** A day that its name begins with. */
  readonly day: string | null;
}

// What a text's name ends with wherever pages are written or made.
const TEXT_END = /\.(?:md|markdown|html?|xhtml|php|aspx?|jsp|cgi)$/i;
const INDEX = /^(?:index|_index|default)$/i;
const READ_FIRST = /^readme$/i;
const DAY = /^(\d{4}-\d{2}-\d{2})[-_ ]+(?=.)/;

/** A path as the place where it is found, lower case: "docs/Intro.md" and "docs/intro/" are one. */
export function keyOf(path: string): string {
  const [plain = '', query] = split(path);
  const parts = plain.normalize('NFC').toLowerCase().split('/').filter(Boolean);
  const last = parts.pop();
  const stem = last === undefined || plain.endsWith('/') ? last : last.replace(TEXT_END, '');
  if (stem !== undefined && !(INDEX.test(stem) && query === undefined)) parts.push(stem);
  return parts.join('/') + (query === undefined ? '' : `?${query}`);
}

function split(path: string): readonly [string, string | undefined] {
  const at = path.indexOf('?');
  return at < 0 ? [path, undefined] : [path.slice(0, at), path.slice(at + 1)];
}

/** A part of a path as a part of an address. */
function partOf(part: string): string {
  const plain = part.normalize('NFC').toLowerCase();
  return /^[\p{L}\p{N}_.-]+$/u.test(plain) && !/^\.+$/.test(plain) && normaliseAddress(`/${plain}`) !== null
    ? plain
    : slugify(plain) || 'page';
}

/** "02-getting_started" as a title: "Getting started". */
function titleOf(part: string): string {
  const words = part
    .replace(/\?.*$/s, '')
    .replace(/\p{Cc}/gu, ' ')
    .replace(/^\d{1,4}[-_. ]+(?=\p{L})/u, '')
    .replace(/[-_]+/g, ' ')
    .trim();
  return words === '' ? '' : words.charAt(0).toUpperCase() + words.slice(1);
}

/** Paths as people put them in order: 2 before 10. */
export const inOrder = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

/** The tree of what was found, each above what stands below it; null where that is too much. */
export function placesOf(texts: readonly FoundText[]): readonly Place[] | null {
  const places = new Map<string, Place>();
  /** How many there are of each key, so that the next is found at once. */
  const counts = new Map<string, number>();
  const sorted = texts.toSorted((a, b) => inOrder.compare(a.path, b.path));
  const indexed = new Set(sorted.filter(({ path }) => isIndex(path)).map(({ path }) => keyOf(path)));
  for (const text of sorted) place(text);
  for (const one of [...places.values()]) {
    one.parent = aboveOf(one.key);
    if (places.size > MOST_ITEMS) return null;
  }
  followParents(places);
  return [...places.values()];

  function place(text: FoundText): void {
    const own = keyOf(text.path);
    const folder = own.includes('/') ? own.slice(0, own.lastIndexOf('/')) : '';
    const last = own.split('/').at(-1) ?? '';
    // What is to be read first stands for its folder, unless something else does.
    const wanted = READ_FIRST.test(last) && !indexed.has(folder) ? folder : own;
    let key = wanted;
    let count = counts.get(wanted) ?? 1;
    while (places.has(key)) key = `${wanted || 'home'}-${++count}`;
    counts.set(wanted, count);
    const { title, address } = text.document;
    add(key, wanted, text, title, address);
  }

  function add(
    key: string,
    /** What it would have been found by, if nothing else were. */
    wanted: string,
    text: FoundText | null,
    title: string | null,
    asks: string | null,
  ): Place {
    const plain = key.split('/');
    const name = wanted.split('/').at(-1) ?? '';
    const day = DAY.exec(name)?.[1] ?? null;
    const bare = name.replace(DAY, '').replace(/\?.*$/s, '');
    const made: Place = {
      key,
      text,
      title: title ?? (titleOf(bare) || (key === '' ? 'Home' : 'Page')),
      parts:
        key === ''
          ? []
          : [
              ...plain.slice(0, -1).map(partOf),
              // What a query tells apart is told apart by its title.
              key.includes('?') ? slugify(title ?? bare) || 'page' : partOf(bare),
            ],
      parent: null,
      notes: [],
      asks,
      day,
    };
    places.set(key, made);
    return made;
  }

  /** The place above another, made where nothing stands. */
  function aboveOf(key: string): Place | null {
    const plain = key.replace(/\?.*$/s, '');
    const at = plain.lastIndexOf('/');
    if (at < 0) return null;
    const folder = plain.slice(0, at);
    const there = places.get(folder);
    if (there) return there;
    const made = add(folder, folder, null, null, null);
    made.parent = aboveOf(folder);
    return made;
  }
}

const isIndex = (path: string): boolean => INDEX.test((path.split('/').at(-1) ?? '').replace(TEXT_END, ''));

/** Puts places below what their texts name; a circle is broken where it closes. */
function followParents(places: ReadonlyMap<string, Place>): void {
  const byTitle = new Map<string, Place | null>();
  for (const one of places.values()) {
    const title = one.title.toLowerCase();
    byTitle.set(title, byTitle.has(title) ? null : one);
  }
  for (const one of places.values()) {
    const named = one.text?.document.parent ?? null;
    if (named === null) continue;
    const from = one.key.includes('/') ? one.key.slice(0, one.key.lastIndexOf('/') + 1) : '';
    const parent =
      places.get(keyOf(named.replace(/^\/+/, ''))) ??
      places.get(keyOf(from + named)) ??
      byTitle.get(named.toLowerCase()) ??
      null;
    const note = (message: string) => one.notes.push({ line: null, message });
    if (!parent)
      note(`It is to stand below “${named}”, and there is no such page. It stands below its folder.`);
    else if (isBelow(parent, one))
      note(`It is to stand below “${named}”, which stands below it. It stands below its folder.`);
    else one.parent = parent;
  }
}

function isBelow(place: Place, above: Place): boolean {
  for (let at: Place | null = place; at; at = at.parent) if (at === above) return true;
  return false;
}
