/**
 * Addresses on the site: one spelling each, found once, before anything is decided. Follows RFC 3986 §6.2
 * (percent-encoding, dot segments) and adds lower case, NFC, single slashes and no trailing slash.
 */
declare const brand: unique symbol;
export type Address = string & { readonly [brand]: 'address' };

const LONGEST = 2000;

/** What most addresses are, and which is normal as it is. */
const NORMAL = /^(?:\/|(?:\/[a-z0-9_-]+)+)$/;

/**
 * The normal spelling of a path as it came in a request, or null when it can't be an address here: too long, not
 * decodable, with control characters, a backslash, or an encoded slash (which would say one thing before decoding and
 * another after). Decodes exactly once, so what was encoded twice matches nothing.
 */
export function normaliseAddress(path: string): Address | null {
  if (NORMAL.test(path) && path.length <= LONGEST) return path as Address;
  if (!path.startsWith('/') || path.length > LONGEST || /%2f|%5c/i.test(path)) return null;
  let decoded: string;
  try {
    decoded = decodeURIComponent(path);
  } catch {
    return null;
  }
  // biome-ignore lint/suspicious/noControlCharactersInRegex: control characters are what is looked for
  if (/[\u0000-\u001f\u007f\\]/.test(decoded)) return null;
  const segments: string[] = [];
  for (const segment of decoded.normalize('NFC').toLowerCase().normalize('NFC').split('/')) {
    if (segment === '..') segments.pop();
    else if (segment !== '' && segment !== '.') segments.push(segment);
  }
  return `/${segments.join('/')}` as Address;
}

/** The first parts of addresses that belong to Trivet; no item can take one. */
export const RESERVED: readonly string[] = [
  'desk',
  'walk',
  'api',
  'files',
  'search',
  'sign-in',
  'sign-out',
  'sign-up',
  'passphrase',
  'reset',
  'me',
  'groups',
  'forms',
  'shop',
  'category',
  'tag',
  'assets',
  '_next',
  'feed.xml',
  'feed.json',
  'sitemap.xml',
  'robots.txt',
  'favicon.ico',
];

/** Whether an address belongs to Trivet and not to the site's items. */
export const isReserved = (address: Address): boolean => RESERVED.includes(address.split('/')[1] ?? '');

/**
 * Where to go after signing in: a path on this site with its query, and nothing else. Whatever could be read as
 * another origin (`//elsewhere`, `/\elsewhere`, `javascript:`, a tab between slashes) becomes the home page, and so
 * does the sign-in page itself.
 */
export function safeNext(next: string | null | undefined): string {
  if (!next) return '/';
  const [path = '', query] = splitOnce(next, '?');
  const address = normaliseAddress(path);
  if (address === null || path.startsWith('//')) return '/';
  const [, first = '', second] = address.split('/');
  // Of what is somebody’s own, a quiz and what they bought are somewhere to go on.
  const goesOn = first === 'me' && (second === 'quiz' || second === 'purchases');
  if (NOT_PLACES.includes(first) && !goesOn) return '/';
  const clean = encodeURI(address).replace(/[?#]/g, encodeURIComponent);
  return query && /^[\w\-.~%&=+*!'(),:@/?]*$/.test(query) ? `${clean}?${query}` : clean;
}

/** Where one goes to come from elsewhere, and what only takes forms. */
const NOT_PLACES = ['sign-in', 'sign-out', 'sign-up', 'passphrase', 'reset', 'me', 'groups', 'forms'];

function splitOnce(text: string, mark: string): [string, string | undefined] {
  const at = text.indexOf(mark);
  return at < 0 ? [text, undefined] : [text.slice(0, at), text.slice(at + 1)];
}
