/** A site on the web: its sitemap, and the pages behind it. Nothing but what has the same origin is read. */
import { LARGEST_FILE } from '../forms';
import { LARGEST_TEXT } from '../texts';
import { type Fetched, type Reach, reach, Unreachable } from './reach';
import { LARGEST_SITEMAP, readSitemap } from './sitemap';
import {
  decodedPath,
  type LeftOut,
  MOST_TEXTS,
  type Source,
  type SourceText,
  stopIf,
  type TextBytes,
} from './source';

const AT_ONCE = 4;
const MOST_SITEMAPS = 100;
const MOST_HOPS = 5;
const MOST_FAILURES = 25;

/** What is asked for: a sitemap, and what the addresses of pages begin with, if not all are wanted. */
export interface WebAsked {
  readonly sitemap: string;
  readonly begins: string;
}

/** Reads a sitemap, and answers the site behind it; or why that can't be had. */
export async function openWeb(
  { sitemap, begins }: WebAsked,
  /** Hosts that may be elsewhere than on the public internet. */
  allowed: readonly string[],
  signal: AbortSignal,
  onProgress: (done: number) => void,
): Promise<Source | { readonly problem: string }> {
  const start = URL.canParse(sitemap) ? new URL(sitemap) : null;
  if (!start || !/^https?:$/.test(start.protocol))
    return { problem: 'Write the whole address of the sitemap, like https://place.example/sitemap.xml.' };
  const web = reach(allowed, AT_ONCE);
  try {
    const found = await pagesOf(web, start, signal, onProgress);
    if ('problem' in found) {
      web.close();
      return found;
    }
    return sourceOf(web, start, found, begins.trim(), signal);
  } catch (error) {
    web.close();
    throw error;
  }
}

interface Pages {
  readonly urls: readonly string[];
  readonly leftOut: readonly LeftOut[];
}

async function pagesOf(
  web: Reach,
  start: URL,
  signal: AbortSignal,
  onProgress: (done: number) => void,
): Promise<Pages | { readonly problem: string }> {
  const waiting = [start.href];
  const seen = new Set(waiting);
  const urls = new Set<string>();
  const leftOut: LeftOut[] = [];
  for (let at = 0; at < waiting.length; at++) {
    const url = waiting[at] ?? '';
    stopIf(signal);
    onProgress(urls.size);
    const read = await sitemapAt(web, new URL(url), start.origin, signal);
    if ('problem' in read) {
      if (at === 0) return { problem: `${url}: ${read.problem}` };
      leftOut.push({ path: url, why: read.problem });
      continue;
    }
    if (read.kind === 'pages') for (const one of read.urls) urls.add(one);
    else
      for (const one of read.urls) {
        if (seen.has(one) || waiting.length >= MOST_SITEMAPS) continue;
        seen.add(one);
        if (URL.canParse(one) && new URL(one).origin === start.origin) waiting.push(one);
        else leftOut.push({ path: one, why: ELSEWHERE });
      }
  }
  return { urls: [...urls], leftOut };
}

const ELSEWHERE = 'It is another site than the sitemap’s.';

async function sitemapAt(web: Reach, url: URL, origin: string, signal: AbortSignal) {
  try {
    const { answer } = await followed(web, url, origin, LARGEST_SITEMAP, signal);
    return await readSitemap(answer.bytes);
  } catch (error) {
    return { problem: saidBy(error, signal) };
  }
}

/** What to say of an error. Whoever has stopped is told nothing but that. */
function saidBy(error: unknown, signal: AbortSignal): string {
  stopIf(signal);
  if (error instanceof Unreachable) return error.message;
  throw error;
}

/** Gets an address and follows where it leads on to, on the same site. */
async function followed(
  web: Reach,
  url: URL,
  origin: string,
  largest: number,
  signal: AbortSignal,
): Promise<{ readonly answer: Fetched; readonly at: URL }> {
  let at = url;
  for (let hops = 0; hops <= MOST_HOPS; hops++) {
    const answer = await web.get(at, largest, signal);
    if (answer.status === 200) return { answer, at };
    const leads = answer.status >= 300 && answer.status < 400 ? answer.location : null;
    if (leads === null || !URL.canParse(leads, at))
      throw new Unreachable(`The server answers ${answer.status} instead of a page.`);
    at = new URL(leads, at);
    if (at.origin !== origin) throw new Unreachable(`It leads on to another site: ${at.host}.`);
  }
  throw new Unreachable(`It leads on more than ${MOST_HOPS} times.`);
}

function sourceOf(
  web: Reach,
  start: URL,
  { urls, leftOut: before }: Pages,
  begins: string,
  signal: AbortSignal,
): Source | { readonly problem: string } {
  const leftOut = [...before];
  const wanted = new Map<string, URL>();
  for (const url of urls) {
    const at = URL.canParse(url) ? new URL(url) : null;
    if (!at || at.origin !== start.origin)
      leftOut.push({ path: url, why: at ? ELSEWHERE : 'That is no address.' });
    else if (begins === '' || at.pathname.startsWith(begins) || at.href.startsWith(begins)) {
      const path = decodedPath(at.pathname);
      if (path === null) leftOut.push({ path: url, why: 'Its address can’t be read.' });
      else if (!wanted.has(path + at.search)) wanted.set(path + at.search, at);
    }
  }
  if (wanted.size === 0)
    return {
      problem:
        begins === ''
          ? 'The sitemap names no page of its own site.'
          : `The sitemap names no page whose address begins with ${begins}.`,
    };
  if (wanted.size > MOST_TEXTS)
    return {
      problem: `The sitemap names ${wanted.size} pages, and at most ${MOST_TEXTS} are taken in at once. Say what the addresses begin with that you want, like /blog/.`,
    };
  let failures = 0;
  const read = async (url: URL): Promise<TextBytes> => {
    // A site that has stopped answering is not asked thousands of times.
    if (failures >= MOST_FAILURES)
      return { problem: `It was not asked: ${MOST_FAILURES} in a row gave no answer.` };
    try {
      const { answer, at } = await followed(web, url, start.origin, LARGEST_TEXT, signal);
      failures = 0;
      const kind = KINDS[answer.type];
      if (kind === undefined)
        return { problem: `It is no page but ${answer.type || 'of no kind that is said'}.` };
      const path = decodedPath(at.pathname);
      const elsewhere = at.href !== url.href && path !== null;
      return {
        bytes: answer.bytes,
        kind,
        charset: answer.charset,
        ...(elsewhere && { path: path + at.search }),
      };
    } catch (error) {
      failures += 1;
      return { problem: saidBy(error, signal) };
    }
  };
  return {
    name: start.host,
    kind: 'web',
    base: new URL('/', start),
    texts: [...wanted].map(([path, url]): SourceText => ({ path, read: () => read(url) })),
    leftOut,
    files: [],
    file: async (path) => {
      try {
        const url = new URL(encodeURI(path).replace(/#/g, '%23'), new URL('/', start));
        const { answer } = await followed(web, url, start.origin, LARGEST_FILE, signal);
        // What a text links to and is a page is no file.
        return KINDS[answer.type] === undefined ? { bytes: answer.bytes } : null;
      } catch (error) {
        return { problem: saidBy(error, signal) };
      }
    },
    close: async () => web.close(),
  };
}

const KINDS: Readonly<Record<string, 'html' | 'markdown'>> = {
  'text/html': 'html',
  'application/xhtml+xml': 'html',
  'text/markdown': 'markdown',
};
