/** The facts of a request, from its headers and its address. All but the network address is what the browser says. */
import { type Device, type Engine, foldCase, type Moment, type RequestFacts } from '@/core';
import type { SiteState } from '../running';
import { momentAt } from '../running';

/** The parts of a request that facts are read from. */
export interface RawRequest {
  readonly url: () => URL;
  readonly header: (name: string) => string | null;
  /** The network address as the server saw it. */
  readonly from: () => string;
}

const MOST_PARAMETERS = 50;
const LONGEST = 500;

/** Reads the facts of a request. What can't be read is not known. */
export const requestFactsOf = (state: SiteState, raw: RawRequest, now: Date): RequestFacts =>
  new FactsOfRequest(momentAt(state, now), raw);

/** Read when they are asked for: few conditions ask about the request. */
class FactsOfRequest implements RequestFacts {
  constructor(
    private readonly moment: Moment,
    private readonly raw: RawRequest,
  ) {}

  get today(): RequestFacts['today'] {
    return this.moment.today;
  }

  get minute(): RequestFacts['minute'] {
    return this.moment.minute;
  }

  get weekday(): RequestFacts['weekday'] {
    return this.moment.weekday;
  }

  get parameters(): RequestFacts['parameters'] {
    return parametersOf(this.raw.url());
  }

  get referrer(): RequestFacts['referrer'] {
    return hostOf(this.raw.header('referer'));
  }

  get device(): RequestFacts['device'] {
    return deviceOf(this.agent);
  }

  get browser(): RequestFacts['browser'] {
    return engineOf(this.agent);
  }

  get network(): RequestFacts['network'] {
    const from = this.raw.from();
    return from === 'unknown' ? null : from;
  }

  get languages(): RequestFacts['languages'] {
    return languagesOf(this.raw.header('accept-language'));
  }

  private get agent(): string {
    return this.raw.header('user-agent')?.slice(0, LONGEST) ?? '';
  }
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
