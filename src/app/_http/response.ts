/** Making answers: the headers that every page of the site goes out with. */
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { environment } from '@/services';
import type { Delivery, RenderedPage } from '@/site';
import { type Answer, Packable } from './answer';
import type { SiteRequest } from './site-request';

// No page of the site has scripts, but for an attempt at a quiz and a video that one is to watch. Only a walk may be framed, and only by the desk.
const policy = (frames: string, script: string | null, formsTo: string) =>
  `default-src 'none'; ${script === null ? '' : `script-src '${script}'; connect-src 'self'; `}style-src 'self'; font-src 'self'; img-src 'self' data:; media-src 'self'; form-action 'self'${formsTo}; base-uri 'none'; frame-ancestors ${frames}`;

/** What no page of a site has any use for. */
export const PERMISSIONS = 'camera=(), display-capture=(), geolocation=(), microphone=(), payment=(), usb=()';

const safety = (
  walk: boolean,
  script: string | null,
  formsTo: string | null = null,
): Record<string, string> => ({
  'Content-Security-Policy': policy(
    walk ? "'self'" : "'none'",
    script,
    formsTo === null ? '' : ` ${formsTo}`,
  ),
  'X-Content-Type-Options': 'nosniff',
  'Referrer-Policy': 'same-origin',
  'Permissions-Policy': PERMISSIONS,
});

/** For a site whose address is https: browsers ask for it in no other way from then on (RFC 6797). */
export const strictTransport = (): Record<string, string> =>
  environment().publicUrl.protocol === 'https:' ? { 'Strict-Transport-Security': 'max-age=31536000' } : {};

/** How a file goes out: as what it is, fit for no browser to run; shown in its place, or to be kept. */
export const fileHeaders = (mediaType: string, name: string, shown: boolean): Record<string, string> => ({
  'Content-Type': mediaType.startsWith('text/') ? `${mediaType}; charset=utf-8` : mediaType,
  'Content-Disposition': `${shown ? 'inline' : 'attachment'}; filename*=UTF-8''${encodeURIComponent(name)}`,
  'Content-Security-Policy': "default-src 'none'; sandbox",
  'X-Content-Type-Options': 'nosniff',
});

/** For whatever depended on who asked. */
export const PRIVATE = 'private, no-store';

interface PageOptions {
  readonly status: number;
  readonly walk?: boolean;
  /** What the one script that it may run is known by: a nonce or a digest (CSP 3). */
  readonly script?: string | null;
  /** Another origin that its forms may lead to: a till's. */
  readonly formsTo?: string | null;
  readonly headers?: Answer['headers'];
}

/** A page that depended on the visitor. */
export const htmlAnswer = (
  body: string | Packable,
  { status, walk = false, script = null, formsTo = null, headers = {} }: PageOptions,
): Answer => ({
  status,
  headers: {
    'Content-Type': 'text/html; charset=utf-8',
    'Cache-Control': PRIVATE,
    ...safety(walk, script, formsTo),
    ...headers,
  },
  body,
});

/** Off to another address: of this site, or wherever a redirect leads. */
export const seeOther = (location: string, headers: Answer['headers'] = {}): Answer =>
  leadTo(303, location, headers);

/** Off to another address, for a decision or for good. */
export const leadTo = (status: 301 | 303, location: string, headers: Answer['headers'] = {}): Answer => ({
  status,
  headers: { Location: location, 'Cache-Control': PRIVATE, ...headers },
  body: null,
});

interface DocumentOptions {
  readonly walk: boolean;
  readonly sameForEveryone: boolean;
  readonly script?: string | null;
}

/** A document as it is sent, to be sent again. What is the same for everyone may be kept by browsers, and has a tag. */
export function documentAnswer(
  { status, html }: RenderedPage,
  { walk, sameForEveryone, script = null }: DocumentOptions,
): Answer {
  const body = new Packable(html);
  if (!sameForEveryone) return htmlAnswer(body, { status, walk, script });
  const etag = `"${createHash('sha256').update(body.plain).digest('base64url').slice(0, 27)}"`;
  return htmlAnswer(body, { status, walk, headers: { 'Cache-Control': 'public, no-cache', ETag: etag } });
}

/** An answer, or that who asks has it already (RFC 9110 §13.1.2). */
export function unlessKnown(request: SiteRequest, answer: Answer): Answer {
  const { ETag: etag, 'Cache-Control': keeping } = answer.headers;
  if (typeof etag !== 'string' || keeping === undefined || !isKnown(request, etag)) return answer;
  return { status: 304, headers: { 'Cache-Control': keeping, ETag: etag }, body: null };
}

/** Whether who asks has what they would get (RFC 9110 §13.1.2, compared weakly). */
export function isKnown({ headers }: SiteRequest, etag: string): boolean {
  const tags = headers.get('if-none-match')?.split(',') ?? [];
  return tags.map((tag) => tag.trim().replace(/^W\//, '')).some((tag) => tag === etag || tag === '*');
}

const known = new Map<string, Delivery>();

/** How pages are delivered to this visitor. */
export function delivery(desk: boolean, walk: boolean): Delivery {
  const key = walk ? 'walk' : desk ? 'desk' : '';
  const found = known.get(key);
  if (found) return found;
  const built = JSON.parse(readFileSync('public/assets/site.json', 'utf8')) as Pick<
    Delivery,
    'stylesheet' | 'attemptScript' | 'watchScript' | 'watchDigest'
  >;
  const made = { ...built, origin: environment().publicUrl.origin, desk: desk && !walk, walk };
  known.set(key, made);
  return made;
}
