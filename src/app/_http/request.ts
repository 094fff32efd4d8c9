/** Reading requests: the session cookie, where a request comes from, small form bodies. */
import { unkeptIn } from '@/core';
import {
  environment,
  knownVisitorOf,
  runningTrivet,
  type Trivet,
  theTime,
  type Visitor,
  visitorOf,
} from '@/services';
import { cookieIn } from './cookie-in';
import { SESSION_COOKIE } from './session-cookie';
import { FROM, type SiteRequest } from './site-request';

/** The visitor who sent this request. */
export async function asking(
  request: SiteRequest,
): Promise<{ readonly trivet: Trivet; readonly visitor: Visitor }> {
  const trivet = await runningTrivet();
  return { trivet, visitor: await visitorIn(trivet, request, theTime()) };
}

/** The visitor whose session's cookie a request brings. */
export const visitorIn = (trivet: Trivet, request: SiteRequest, now: Date): Promise<Visitor> =>
  visitorOf(trivet, cookieIn(request, SESSION_COOKIE), now);

/** The same, when no more than memory has to be asked for it; null when the database has to be. */
export const knownVisitorIn = (trivet: Trivet, request: SiteRequest, now: Date): Visitor | null =>
  knownVisitorOf(trivet, cookieIn(request, SESSION_COOKIE), now);

/**
 * Whether a request that changes something comes from a page of this site. Browsers say so themselves; a request without
 * these headers comes from a program, which has no cookies to abuse.
 */
export function fromThisSite(request: SiteRequest): boolean {
  const site = request.headers.get('sec-fetch-site');
  if (site !== null) return site === 'same-origin' || site === 'none';
  const origin = request.headers.get('origin');
  if (origin === null) return true;
  // Behind a proxy a request may name another host than the one it was sent to.
  return (
    URL.canParse(origin) &&
    (new URL(origin).host === request.headers.get('host') || origin === environment().publicUrl.origin)
  );
}

/** The network address that the server saw, which the visitor can't choose. */
export const addressOf = (request: SiteRequest): string => request.headers.get(FROM) ?? 'unknown';

/** Where a form is to lead, as its address says; null when it says nothing, or several things. */
export function nextOf(request: SiteRequest): string | null {
  const next = new URL(request.url).searchParams.getAll('next');
  return next.length === 1 ? (next[0] ?? null) : null;
}

const LARGEST_FORM = 20_000;

/**
 * The fields of a plain form, each a text, or a list when it was sent twice; null when it is too large or no form, or holds
 * what no text can.
 */
export async function readForm(
  request: SiteRequest,
  most = LARGEST_FORM,
): Promise<Readonly<Record<string, unknown>> | null> {
  if (!/^application\/x-www-form-urlencoded/.test(request.headers.get('content-type') ?? '')) return null;
  const body = await readText(request, most);
  if (body === null) return null;
  const fields = new URLSearchParams(body);
  if (unkeptIn([...fields]) !== null) return null;
  return Object.fromEntries(
    [...new Set(fields.keys())].map((key) => {
      const values = fields.getAll(key);
      return [key, values.length === 1 ? values[0] : values];
    }),
  );
}

/** A request's body as text, or null as soon as it is longer than allowed. */
export async function readText(request: SiteRequest, most: number): Promise<string | null> {
  const bytes = await readBytes(request, most);
  return bytes === null ? null : new TextDecoder().decode(bytes);
}

/** A request's body, or null as soon as it is longer than allowed. */
export async function readBytes({ headers, body }: SiteRequest, most: number): Promise<Uint8Array | null> {
  if (Number(headers.get('content-length') ?? 0) > most) {
    await body?.cancel();
    return null;
  }
  const reader = body?.getReader();
  const parts: Uint8Array[] = [];
  let size = 0;
  for (let chunk = await reader?.read(); chunk && !chunk.done; chunk = await reader?.read()) {
    size += chunk.value.byteLength;
    if (size > most) {
      await reader?.cancel();
      return null;
    }
    parts.push(chunk.value);
  }
  return new Uint8Array(Buffer.concat(parts));
}
