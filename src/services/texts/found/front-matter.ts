/** What stands before a text in YAML, between lines of three dashes. */

import { LineCounter, parseDocument } from 'yaml';
import { type Day, isDay } from '@/core';
import { cut } from './cut';
import type { About, Note } from './document';

const LONGEST = 20_000;
const MOST_TAGS = 50;
const LONGEST_NAME = 200;
const LONGEST_SUMMARY = 2000;

export const NOTHING_SAID: About = {
  title: null,
  date: null,
  tags: [],
  category: null,
  author: null,
  address: null,
  formerly: [],
  parent: null,
  draft: false,
  summary: '',
};

/** A text without what stands before it, and what that says. Lines count from the beginning of the whole. */
export function frontMatterOf(text: string): {
  readonly about: About;
  readonly body: string;
  /** How many lines stand before the body. */
  readonly skipped: number;
  readonly notes: readonly Note[];
} {
  const toml = /^\+\+\+[ \t]*\n/.test(text);
  const [whole, inside = ''] =
    // Sticky: what stands further down is no front matter.
    /^---[ \t]*\n([\s\S]*?)\n?^(?:---|\.\.\.)[ \t]*(?:\n|$)/my.exec(text) ?? [];
  if (toml)
    return {
      about: NOTHING_SAID,
      body: text.replace(/^\+\+\+[ \t]*\n[\s\S]*?\n\+\+\+[ \t]*(?:\n|$)/, ''),
      skipped: linesIn(/^\+\+\+[ \t]*\n[\s\S]*?\n\+\+\+[ \t]*(?:\n|$)/.exec(text)?.[0] ?? ''),
      notes: [{ line: 1, message: 'What stands before it is TOML, and only YAML is read. It was left out.' }],
    };
  // Two lines across a page are no front matter.
  if (whole === undefined || (inside.trim() !== '' && !/^[\w-]+[ \t]*:/m.test(inside)))
    return { about: NOTHING_SAID, body: text, skipped: 0, notes: [] };
  const body = text.slice(whole.length);
  const skipped = linesIn(whole);
  return { body, skipped, ...readYaml(inside) };
}

const linesIn = (text: string): number => text.split('\n').length - 1;

function readYaml(inside: string): { readonly about: About; readonly notes: readonly Note[] } {
  const broken = (line: number, why: string) => ({
    about: NOTHING_SAID,
    notes: [{ line, message: `What stands before it can’t be read and was left out: ${why}` }],
  });
  if (inside.length > LONGEST) return broken(1, `it is longer than ${LONGEST} characters.`);
  const lines = new LineCounter();
  const parsed = parseDocument(inside, { lineCounter: lines, schema: 'core', prettyErrors: false });
  const [error] = parsed.errors;
  if (error) return broken(lines.linePos(error.pos[0]).line + 1, sentence(error.message));
  let value: unknown;
  try {
    value = parsed.toJS({ maxAliasCount: 50 });
  } catch {
    return broken(2, 'it refers to itself too often.');
  }
  if (value === null) return { about: NOTHING_SAID, notes: [] };
  if (typeof value !== 'object' || Array.isArray(value))
    return broken(2, 'it is no list of names and values.');
  return aboutOf(value as Readonly<Record<string, unknown>>);
}

const sentence = (text: string): string => `${text.replace(/\s+/g, ' ').replace(/\.$/, '')}.`;

/** What each name says, with others under which it is found. */
const NAMES = {
  title: ['title'],
  date: ['date'],
  tags: ['tags', 'tag'],
  category: ['category', 'categories'],
  author: ['author', 'authors'],
  address: ['address', 'url'],
  formerly: ['formerly'],
  parent: ['parent'],
  draft: ['draft'],
  summary: ['summary', 'description'],
} as const satisfies Record<keyof About, readonly string[]>;

const KNOWN = new Set<string>(Object.values(NAMES).flat());

function aboutOf(value: Readonly<Record<string, unknown>>): {
  readonly about: About;
  readonly notes: readonly Note[];
} {
  const given = new Map(Object.entries(value).map(([name, one]) => [name.toLowerCase(), one]));
  const notes: Note[] = [];
  const note = (message: string) => notes.push({ line: null, message });
  const raw = (key: keyof About) => NAMES[key].map((name) => given.get(name)).find((one) => one != null);
  const words = (key: keyof About, longest = LONGEST_NAME): string | null => {
    const found = raw(key);
    const [first] = Array.isArray(found) ? found : [found];
    if (Array.isArray(found) && found.length > 1)
      note(`Of “${key}” only the first was kept: ${String(first)}.`);
    if (first === undefined || first === null || typeof first === 'object') return null;
    const text = oneLine(String(first));
    if (text.length > longest) note(`“${key}” has more than ${longest} letters and was cut.`);
    return text === '' ? null : cut(text, longest);
  };
  const several = (key: 'tags' | 'formerly'): readonly string[] => {
    const found = raw(key);
    const list = Array.isArray(found) ? found : typeof found === 'string' ? found.split(',') : [];
    const all = [...new Set(list.map((one) => cut(oneLine(String(one)), LONGEST_NAME)).filter(Boolean))];
    if (all.length > MOST_TAGS)
      note(
        `Of ${all.length} ${key === 'tags' ? 'tags' : 'earlier addresses'} the first ${MOST_TAGS} were kept.`,
      );
    return all.slice(0, MOST_TAGS);
  };
  const date = words('date');
  const day = date === null ? null : (/^\d{4}-\d{2}-\d{2}/.exec(date)?.[0] ?? null);
  if (date !== null && (day === null || !isDay(day)))
    note(`Its date “${date.slice(0, 40)}” is no day like 2026-05-01, and was left out.`);
  const draft = raw('draft');
  const unread = [...given.keys()].filter((name) => !KNOWN.has(name) && name !== 'published');
  if (unread.length > 0)
    note(`It also says ${unread.slice(0, 8).join(', ')}${unread.length > 8 ? ' …' : ''}: that is not kept.`);
  return {
    notes,
    about: {
      title: words('title'),
      date: day !== null && isDay(day) ? (day as Day) : null,
      tags: several('tags'),
      category: words('category'),
      author: words('author'),
      address: words('address', 500),
      formerly: several('formerly'),
      parent: words('parent', 500),
      // What is not plainly said to be ready is not.
      draft: (draft !== undefined && draft !== false) || given.get('published') === false,
      summary: words('summary', LONGEST_SUMMARY) ?? '',
    },
  };
}

const oneLine = (text: string): string => text.replace(/\s+/g, ' ').trim();
