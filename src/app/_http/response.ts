/** Writing responses: the headers that every page of the site goes out with. */
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { environment } from '@/services';
import type { Delivery, Rendered } from '@/site';

// No page of the site has scripts. Only a walk may be framed, and only by the desk.
const policy = (frames: string) =>
  `default-src 'none'; style-src 'self'; font-src 'self'; img-src 'self' data:; media-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors ${frames}`;

/** What no page of a site has any use for. */
export const PERMISSIONS = 'camera=(), display-capture=(), geolocation=(), microphone=(), payment=(), usb=()';

const safety = (walk: boolean): Record<string, string> => ({
  'Content-Security-Policy': policy(walk ? "'self'" : "'none'"),
  'X-Content-Type-Options': 'nosniff',
  'Referrer-Policy': 'same-origin',
  'Permissions-Policy': PERMISSIONS,
});

/** For a site whose address is https: browsers ask for it in no other way from then on (RFC 6797). */
export const strictTransport = (): Record<string, string> =>
  environment().publicUrl.protocol === 'https:' ? { 'Strict-Transport-Security': 'max-age=31536000' } : {};

/** For whatever depended on who asked. */
export const PRIVATE = 'private, no-store';

interface PageOptions {
  readonly status: number;
  readonly walk?: boolean;
  readonly headers?: Readonly<Record<string, string>>;
}

/** A page that depended on the visitor. */
export const htmlResponse = (html: string, { status, walk = false, headers = {} }: PageOptions): Response =>
  new Response(html, {
    status,
    headers: {
      'Content-Type': 'text/html; charset=utf-8',
      'Cache-Control': PRIVATE,
      ...safety(walk),
      ...headers,
    },
  });

/** Off to another address on this site. */
export const seeOther = (location: string, headers: Readonly<Record<string, string>> = {}): Response =>
  new Response(null, { status: 303, headers: { Location: location, 'Cache-Control': PRIVATE, ...headers } });

/** A rendered answer as a response. What is the same for everyone may be kept, and is checked by its ETag. */
export function respond(
  request: Request,
  rendered: Rendered,
  walk: boolean,
  sameForEveryone: boolean,
): Response {
  if ('location' in rendered) {
    return rendered.status === 303
      ? seeOther(rendered.location)
      : new Response(null, {
          status: rendered.status,
          headers: { Location: rendered.location, 'Cache-Control': PRIVATE },
        });
  }
  if (!sameForEveryone) return htmlResponse(rendered.html, { status: rendered.status, walk });
  const etag = `"${createHash('sha256').update(rendered.html).digest('base64url').slice(0, 27)}"`;
  const headers = { 'Cache-Control': 'public, no-cache', ETag: etag };
  if (isKnown(request, etag)) return new Response(null, { status: 304, headers });
  return htmlResponse(rendered.html, { status: rendered.status, walk, headers });
}

/** Whether who asks has what they would get (RFC 9110 §13.1.2, compared weakly). */
export function isKnown({ headers }: Request, etag: string): boolean {
  const tags = headers.get('if-none-match')?.split(',') ?? [];
  return tags.map((tag) => tag.trim().replace(/^W\//, '')).some((tag) => tag === etag || tag === '*');
}

let stylesheet: string | undefined;

/** How pages are delivered to this visitor. */
export function delivery(desk: boolean, walk: boolean): Delivery {
  stylesheet ??= (JSON.parse(readFileSync('public/assets/site.json', 'utf8')) as { stylesheet: string })
    .stylesheet;
  return { stylesheet, origin: environment().publicUrl.origin, desk: desk && !walk, walk };
}
