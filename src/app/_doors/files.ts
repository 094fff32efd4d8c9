/** Files: each behind its own decision, and fit for no browser to run. */
import { createHash } from 'node:crypto';
import { dependsOnVisitor } from '@/core';
import { fileAt } from '@/services';
import { PRIVATE } from '../_http/response';
import type { Ask, Door } from './door';
import { given, missing } from './page';

/** What a browser may show in its place; the rest it keeps. */
const SHOWN = /^(image|video|audio)\//;

export const files: Door = {
  GET: async (ask) => {
    const [id, name, ...more] = ask.rest;
    if (!id || !name || more.length > 0) return missing(ask);
    const answer = await fileAt(ask.trivet, ask.look, id, name);
    if (answer.kind === 'instead') return given(ask, answer.answer);
    const { file, bytes } = answer;
    const same = !ask.delivery.walk && !dependsOnVisitor(ask.look.compiled, file.id);
    const etag = `"${createHash('sha256').update(bytes).digest('base64url').slice(0, 27)}"`;
    const headers: Record<string, string> = {
      'Content-Type': file.mediaType.startsWith('text/')
        ? `${file.mediaType}; charset=utf-8`
        : file.mediaType,
      'Content-Disposition': `${SHOWN.test(file.mediaType) ? 'inline' : 'attachment'}; filename*=UTF-8''${encodeURIComponent(file.name)}`,
      'Content-Security-Policy': "default-src 'none'; sandbox",
      'X-Content-Type-Options': 'nosniff',
      'Accept-Ranges': 'bytes',
      'Cache-Control': same ? 'public, no-cache' : PRIVATE,
      ...(same && { ETag: etag }),
    };
    if (same && ask.request.headers.get('if-none-match')?.includes(etag))
      return new Response(null, { status: 304, headers });
    return withRange(ask, bytes, headers);
  },
};

/** One range of bytes (RFC 9110 §14), which videos are played with; all of them for anything else. */
function withRange({ request }: Ask, bytes: Uint8Array, headers: Record<string, string>): Response {
  const body = (part: Uint8Array) => new Blob([part as Uint8Array<ArrayBuffer>]);
  const asked = /^bytes=(\d*)-(\d*)$/.exec(request.headers.get('range') ?? '');
  if (!asked || (asked[1] === '' && asked[2] === '')) return new Response(body(bytes), { headers });
  const size = bytes.length;
  const [, from = '', to = ''] = asked;
  const start = from === '' ? Math.max(0, size - Number(to)) : Number(from);
  const end = from === '' || to === '' ? size - 1 : Math.min(size - 1, Number(to));
  if (start >= size || start > end)
    return new Response(null, { status: 416, headers: { ...headers, 'Content-Range': `bytes */${size}` } });
  return new Response(body(bytes.subarray(start, end + 1)), {
    status: 206,
    headers: { ...headers, 'Content-Range': `bytes ${start}-${end}/${size}` },
  });
}
