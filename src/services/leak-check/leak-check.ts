/**
 * The leak check: everything that a site withholds is marked in a copy, every door is tried as every visitor, and whatever
 * comes through that should not have is reported.
 */
import { decide, guest, type Item, type ItemId, type PersonId, pathOf, type RequestFacts } from '@/core';
import type { SiteState } from '../running';
import { plainRequest, Trivet, yielder } from '../running';
import { type Eyes, mayHave } from './allowed';
import { fillCopy, type Tester } from './copy';
import { type Try, triesOf } from './doors';
import { MARK, type Mark, type Planted, plantMarks } from './marks';

/** Something that came through a door. */
export interface Leak {
  readonly visitor: string;
  readonly door: string;
  /** The request, with its path as it is in the copy. */
  readonly path: string;
  /** What it is: of which item, and which part of it. */
  readonly item: ItemId | null;
  readonly title: string;
  readonly part: string;
}

export interface LeakReport {
  readonly visitors: number;
  readonly requests: number;
  readonly marks: number;
  /** The first by each door and of each part for each visitor; a hole in one door lets many marks through. */
  readonly leaks: readonly Leak[];
  readonly leaked: number;
}

/** Answers a request to the copy. */
export type Knock = (copy: Trivet, request: Request) => Promise<Response>;

export interface Check {
  readonly source: SiteState;
  readonly people: readonly PersonId[];
  readonly knock: Knock;
  readonly cookieName: string;
  readonly now: Date;
  /** How much the copy may keep of what it made; as much as any site, unless it is said. */
  readonly keptBytes?: number;
  /** Told after each visitor. */
  readonly onProgress?: (done: number, of: number) => void;
  readonly signal?: AbortSignal;
}

/** Checks a site in a copy of its own, in memory. */
export async function leakCheck(check: Check): Promise<LeakReport> {
  const planted = plantMarks(check.source, check.people, check.now);
  const copy = await Trivet.open(null, check.keptBytes);
  try {
    const testers = await fillCopy(copy, check.source, planted, check.people, check.now);
    return await tryDoors(copy.state, planted, testers, {
      ...check,
      knock: (request) => check.knock(copy, request),
    });
  } finally {
    await copy.close();
  }
}

interface Trying {
  readonly knock: (request: Request) => Promise<Response>;
  readonly cookieName: string;
  readonly now: Date;
  readonly onProgress?: (done: number, of: number) => void;
  readonly signal?: AbortSignal;
  /** Where the copy is served; any address, when it is asked directly. */
  readonly origin?: string;
}

const MOST_TOLD = 6;
const SOUGHT = 24;

/** Tries every door of a copy as every tester. */
export async function tryDoors(
  copy: SiteState,
  planted: Planted,
  testers: readonly Tester[],
  { knock, cookieName, now, onProgress, signal, origin = 'http://localhost' }: Trying,
): Promise<LeakReport> {
  const stored = new Map(planted.stored.map((one) => [one.item.id, one]));
  const leaks: Leak[] = [];
  let leaked = 0;
  let requests = 0;
  const rest = yielder();
  const request: RequestFacts = plainRequest(copy, now);
  for (const [index, tester] of testers.entries()) {
    signal?.throwIfAborted();
    const facts = tester.person === null ? guest : (copy.people.get(tester.person)?.facts ?? guest);
    const eyes: Eyes = { compiled: copy.live.compiled, facts, request };
    const allowed = new Map<string, boolean>();
    const may = (mark: Mark, at: Item | null, door: string) => {
      const key = `${mark.word} ${at?.id} ${door}`;
      const known = allowed.get(key) ?? mayHave(eyes, mark, { stored, terms: planted.terms }, at, door);
      allowed.set(key, known);
      return known;
    };
    const report = (attempt: Try, mark: Mark) => {
      leaked += 1;
      const before = leaks.filter(
        ({ visitor, door, part }) =>
          visitor === tester.name && door === attempt.door && part === mark.part.kind,
      );
      if (before.length >= MOST_TOLD) return;
      const title =
        mark.part.kind === 'product'
          ? mark.part.product
          : mark.item === null
            ? 'somebody else'
            : (stored.get(mark.item)?.item.title ?? mark.item);
      leaks.push({
        visitor: tester.name,
        door: attempt.door,
        path: attempt.path,
        item: mark.item,
        title: title.replace(MARK, '').trim(),
        part: mark.part.kind,
      });
    };
    const send = async (attempt: Try): Promise<{ readonly status: number; readonly text: string }> => {
      requests += 1;
      const response = await knock(
        new Request(`${origin}${attempt.path}`, {
          method: attempt.method,
          headers: attempt.headers,
          redirect: 'manual',
          ...(attempt.method === 'POST' && { body: attempt.form ?? '' }),
        }),
      );
      const body = Buffer.from(await response.arrayBuffer()).toString('latin1');
      const headers = [...response.headers].map(([name, value]) => `${name}: ${value}`).join('\n');
      return { status: response.status, text: `${headers}\n${body}` };
    };
    for (const attempt of triesOf(copy.outline, tester, cookieName, planted)) {
      await rest();
      signal?.throwIfAborted();
      const { text } = await send(attempt);
      const at = itemAskedOf(attempt, copy);
      const told = at && toldByRedirect(at, eyes);
      for (const word of new Set(text.toLowerCase().match(MARK))) {
        const mark = planted.marks.get(word);
        // What one asked with is no news, and neither is where one is sent.
        if (!mark || attempt.path.toLowerCase().includes(word) || may(mark, at, attempt.door)) continue;
        if (told !== null && told === mark.item) continue;
        report(attempt, mark);
      }
    }
    // A search for withheld words has to answer exactly as one for words that are nowhere.
    const cookie: Readonly<Record<string, string>> =
      tester.session === null ? {} : { cookie: `${cookieName}=${tester.session}` };
    const search = (word: string) =>
      send({ door: 'search', path: `/search?q=${word}`, method: 'GET', headers: cookie });
    const nowhere = `qz${'0'.repeat(14)}`;
    const nothing = withoutHeaders((await search(nowhere)).text).replaceAll(nowhere, '');
    for (const mark of sample(
      [...planted.marks.values()].filter((one) => !may(one, null, 'search') && SEARCHED.has(one.part.kind)),
      SOUGHT,
    )) {
      const { text } = await search(mark.word);
      if (withoutHeaders(text).replaceAll(mark.word, '') !== nothing)
        report({ door: 'search', path: `/search?q=${mark.word}`, method: 'GET', headers: {} }, mark);
    }
    onProgress?.(index + 1, testers.length);
  }
  return { visitors: testers.length, requests, marks: planted.marks.size, leaks, leaked };
}

const SEARCHED = new Set(['title', 'summary', 'text', 'section part', 'question', 'right answer']);

const withoutHeaders = (text: string): string => text.slice(text.indexOf('<!doctype'));

/** Some of a list, evenly. */
const sample = <T>(list: readonly T[], most: number): readonly T[] =>
  list.length <= most
    ? list
    : list.filter(
        (_, at) => Math.floor((at * most) / list.length) !== Math.floor(((at - 1) * most) / list.length),
      );

/** The item that is asked for, whatever is given there; null where none is. */
function itemAskedOf({ path }: Try, { outline }: SiteState): Item | null {
  const asked = decodeURI(path.replace(/^\/walk\/[^/]+/, '').replace(/[?].*$/, ''))
    .toLowerCase()
    .replace(/\/+/g, '/')
    .replace(/(.)\/$/, '$1');
  const api = /^\/api\/items\/(.+)$/.exec(asked)?.[1];
  for (const item of outline.items.values())
    if ((pathOf(item) ?? '\0') === (asked || '/') || item.id === api) return item;
  return null;
}

/** The item that a visitor is sent to from where they knock, if they are. */
function toldByRedirect(item: Item, { compiled, facts, request }: Eyes): ItemId | null {
  const decision = decide(compiled, item.id, facts, request);
  const to =
    decision.kind === 'turned away' && decision.turnAway.kind === 'redirect' ? decision.turnAway.to : null;
  return to?.kind === 'item' ? to.item : null;
}

/** A report as a few sentences. */
export function describeReport({ visitors, requests, marks, leaks, leaked }: LeakReport): string {
  const tried = `${requests} requests as ${visitors} visitors, ${marks} marks`;
  if (leaked === 0) return `Nothing came through: ${tried}.`;
  return [
    `${leaked} things came through that should not have: ${tried}.`,
    ...leaks.map(
      ({ visitor, door, path, title, part }) =>
        `  ${visitor}, by the ${door} ${path}: the ${part} of ${title}`,
    ),
  ].join('\n');
}
