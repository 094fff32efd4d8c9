/**
 * Whose request it is, by network address: of the socket, or, where that is a proxy that the environment names, of whom the
 * proxy says (RFC 7239, and what came before it). What can't be believed is nobody's address, so that no network opens by it.
 */
import { isWithin, networkAddress, type rangeOf } from '@/core';
import { environment } from '@/services';

type Range = NonNullable<ReturnType<typeof rangeOf>>;

/** What is known of nobody. */
export const NOBODYS = 'unknown';

interface Asking {
  readonly socket: { readonly remoteAddress?: string | undefined };
  readonly headers: Readonly<Record<string, string | readonly string[] | undefined>>;
}

/** The address of whoever asks. */
export const clientAddress = (incoming: Asking): string =>
  clientAddressBehind(environment().proxies, incoming);

/** More hops than any request takes. */
const MOST_HOPS = 20;

/** The same behind some proxies: the last hop, from the server's side, that is none of them. */
export function clientAddressBehind(proxies: readonly Range[], { socket, headers }: Asking): string {
  const { remoteAddress = NOBODYS } = socket;
  if (proxies.length === 0 || !isProxy(remoteAddress, proxies)) return remoteAddress;
  const forwarded = textOf(headers.forwarded);
  const before = textOf(headers['x-forwarded-for']);
  // A proxy writes one of them, and lets the other pass as whoever asks has made it up.
  if ((forwarded === null) === (before === null)) return NOBODYS;
  const hops = forwarded === null ? (before ?? '').split(',') : forsIn(forwarded);
  if (hops === null || hops.length > MOST_HOPS) return NOBODYS;
  let address = NOBODYS;
  for (const hop of hops.toReversed()) {
    const read = networkAddress(withoutPort(hop.trim()));
    if (read === null) return NOBODYS;
    address = read.toString();
    if (!isProxy(address, proxies)) break;
  }
  return address;
}

const textOf = (value: string | readonly string[] | undefined): string | null =>
  value === undefined ? null : typeof value === 'string' ? value : value.join(',');

function isProxy(address: string, proxies: readonly Range[]): boolean {
  const read = networkAddress(address);
  return read !== null && proxies.some((range) => isWithin(read, range));
}

/** One pair of a `Forwarded` element: a token, and a token or a quoted text (RFC 7239 §4). */
const PAIR = /^\s*([\w!#$%&'*+.^`|~-]+)=(?:"((?:[^"\\]|\\.)*)"|([\w!#$%&'*+.^`|~:[\]-]*))\s*$/;

/** Whom each element of a `Forwarded` header names; null for a header that is none, or names nobody somewhere. */
function forsIn(header: string): readonly string[] | null {
  const hops: string[] = [];
  for (const element of partsOf(header, ',')) {
    const fors = partsOf(element, ';').flatMap((pair) => {
      const [, name, quoted, plain] = PAIR.exec(pair) ?? [];
      return name?.toLowerCase() === 'for' ? [(quoted ?? plain ?? '').replace(/\\(.)/g, '$1')] : [];
    });
    const [only, ...more] = fors;
    if (only === undefined || more.length > 0) return null;
    hops.push(only);
  }
  return hops;
}

/** A text at a sign that stands in no quotes. */
function partsOf(text: string, sign: string): readonly string[] {
  const parts = [''];
  let quoted = false;
  for (let at = 0; at < text.length; at++) {
    const one = text[at] ?? '';
    if (one === '"') quoted = !quoted;
    if (one === sign && !quoted) parts.push('');
    else parts[parts.length - 1] += quoted && one === '\\' ? one + (text[++at] ?? '') : one;
  }
  return parts;
}

/** An address as it stands in a header, without the port that may stand with it: `[2001:db8::1]:4711`, `192.0.2.1:80`. */
function withoutPort(hop: string): string {
  const [, inBrackets] = /^\[([^\]]*)\](?::\d{1,5})?$/.exec(hop) ?? [];
  if (inBrackets !== undefined) return inBrackets;
  return /^[\d.]+:\d{1,5}$/.test(hop) ? hop.slice(0, hop.indexOf(':')) : hop;
}
