/** Files: each behind its own decision, and fit for no browser to run. */
import { dependsOnVisitor } from '@/core';
import { fileAt } from '@/services';
import type { Answer } from '../_http/answer';
import { fileHeaders, isKnown, PRIVATE } from '../_http/response';
import type { SiteRequest } from '../_http/site-request';
import { bearerIn, INVALID_TOKEN } from './bearer';
import type { Ask, Door } from './door';
import { given, missing } from './page';

/** What a browser may show in its place; the rest it keeps. */
const SHOWN = /^(image|video|audio)\//;

export const files: Door = {
  GET: async (ask) => {
    // An app brings its key here as well: what the API tells of a file is where it is.
    const context = ask.delivery.walk ? ask.context : await bearerIn(ask, ask.context.facts);
    if (context === null)
      return { status: 401, headers: { ...INVALID_TOKEN, 'Cache-Control': PRIVATE }, body: null };
    return fileFor({ ...ask, context });
  },
};

async function fileFor(ask: Ask): Promise<Answer> {
  const [id, name, ...more] = ask.rest;
  if (!id || !name || more.length > 0) return missing(ask);
  const answer = await fileAt(ask.trivet, ask.context, id, name);
  if (answer.kind === 'instead') return given(ask, answer.answer);
  const { file, size } = answer;
  const same = !ask.delivery.walk && !dependsOnVisitor(ask.context.compiled, file.id);
  const etag = `"${answer.digest}"`;
  const headers: Record<string, string> = {
    ...fileHeaders(file.mediaType, file.name, SHOWN.test(file.mediaType)),
    'Accept-Ranges': 'bytes',
    'Cache-Control': same ? 'public, no-cache' : PRIVATE,
    ETag: etag,
  };
  if (isKnown(ask.request, etag)) return { status: 304, headers, body: null };
  const range = rangeIn(ask.request, size, etag);
  if (range === 'none of it')
    return { status: 416, headers: { ...headers, 'Content-Range': `bytes */${size}` }, body: null };
  const { from, to } = range ?? { from: 0, to: size - 1 };
  const count = to - from + 1;
  return {
    status: range ? 206 : 200,
    headers: {
      ...headers,
      'Content-Length': String(count),
      ...(range && { 'Content-Range': `bytes ${from}-${to}/${size}` }),
    },
    body: ask.request.method === 'HEAD' ? null : answer.read(from, count),
  };
}

/**
 * The one range of bytes that is asked for (RFC 9110 §14), which videos are played with; null for all of them. Ranges are
 * for GET alone, and one of an older file (`If-Range`) is all of the newer one.
 */
function rangeIn(
  { method, headers }: SiteRequest,
  size: number,
  etag: string,
): { readonly from: number; readonly to: number } | 'none of it' | null {
  const asked = /^bytes=(\d*)-(\d*)$/.exec(headers.get('range') ?? '');
  if (method !== 'GET' || !asked || (asked[1] === '' && asked[2] === '')) return null;
  const condition = headers.get('if-range');
  if (condition !== null && condition !== etag) return null;
  const [, first = '', last = ''] = asked;
  const from = first === '' ? Math.max(0, size - Number(last)) : Number(first);
  const to = first === '' || last === '' ? size - 1 : Math.min(size - 1, Number(last));
  if (last !== '' && first !== '' && Number(last) < Number(first)) return null;
  return from >= size || from > to ? 'none of it' : { from, to };
}
