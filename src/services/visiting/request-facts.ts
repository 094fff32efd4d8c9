/** The facts of a request, from its headers and its address. All but the network address is what the browser says. */
import { type Device, type Engine, foldCase, type RequestFacts } from '@/core';
import type { SiteState } from '../running';
import { momentAt } from '../running';

/** The parts of a request that facts are read from. */
export interface RawRequest {
  readonly url: URL;
  readonly header: (name: string) => string | null;
  /** The network address as the server saw it. */
  readonly from: string;
}

const MOST_PARAMETERS = 50;
const LONGEST = 500;

/** Reads the facts of a request. What can't be read is not known. */
export function requestFactsOf(state: SiteState, raw: RawRequest, now: Date): RequestFacts {
  const agent = raw.header('user-agent')?.slice(0, LONGEST) ?? '';
  return {
    ...momentAt(state, now),
    parameters: parametersOf(raw.url),
    referrer: hostOf(raw.header('referer')),
    device: deviceOf(agent),
    browser: engineOf(agent),
    network: raw.from === 'unknown' ? null : raw.from,
    languages: languagesOf(raw.header('accept-language')),
  };
}

/** The parameters of an address, the first value of each. */
export function parametersOf(url: URL): Readonly<Record<string, string>> {
  const found = new Map<string, string>();
  for (const [name, value] of url.searchParams) {
    if (found.size >= MOST_PARAMETERS) break;
    if (!found.has(name) && name.length <= LONGEST && value.length <= LONGEST) found.set(name, value);
  }
  return Object.fromEntries(found);
}

const hostOf = (referrer: string | null): string | null =>
  referrer !== null && URL.canParse(referrer) ? foldCase(new URL(referrer).hostname) || null : null;

function deviceOf(agent: string): Device | null {
  if (agent === '') return null;
  if (/tablet|pad\b/i.test(agent)) return 'tablet';
  return /mobi|phone/i.test(agent) ? 'phone' : 'computer';
}

/** The engine a browser says it is built on; two of the three have frozen the version that tells them apart. */
function engineOf(agent: string): Engine | null {
  if (/WebKit\/537\.36/.test(agent)) return 'blink';
  if (/WebKit\//.test(agent)) return 'webkit';
  return /Gecko\/\d/.test(agent) ? 'gecko' : null;
}

/** The languages of an Accept-Language header (RFC 9110, §12.5.4), liked best first. */
function languagesOf(header: string | null): readonly string[] | null {
  if (header === null) return null;
  const ranges = header
    .slice(0, LONGEST)
    .split(',')
    .map((part) => /^\s*([A-Za-z0-9-]+)\s*(?:;\s*q=([01](?:\.\d{1,3})?))?\s*$/.exec(part))
    .flatMap((match) => (match?.[1] ? [{ tag: match[1], weight: Number(match[2] ?? 1) }] : []))
    .filter(({ weight }) => weight > 0);
  return ranges.length === 0 ? null : ranges.toSorted((a, b) => b.weight - a.weight).map(({ tag }) => tag);
}
