import { expect, it } from 'vitest';
import { documentAnswer, htmlAnswer, leadTo, seeOther, unlessKnown } from './response';

const asking = (headers: Record<string, string> = {}) => new Request('http://larkfell.example/', { headers });
const page = { status: 200, html: '<p>Open</p>' } as const;
const own = { walk: false, sameForEveryone: false };
const everyones = { walk: false, sameForEveryone: true };

it('never lets a cache keep what depended on the visitor', () => {
  for (const { headers } of [
    documentAnswer(page, own),
    documentAnswer({ status: 404, html: '' }, own),
    leadTo(301, '/there'),
    seeOther('/'),
    htmlAnswer('', { status: 422 }),
  ]) {
    expect(headers['Cache-Control']).toBe('private, no-store');
    expect(headers.ETag).toBeUndefined();
  }
});

it('gives what is the same for everyone an ETag, and 304 to whoever has it', () => {
  const first = documentAnswer(page, everyones);
  const etag = String(first.headers.ETag);
  expect(first.headers['Cache-Control']).toBe('public, no-cache');
  expect(etag).toMatch(/^"[\w-]+"$/);
  for (const known of [etag, `W/${etag}`, `"other", ${etag}`, '*'])
    expect(unlessKnown(asking({ 'if-none-match': known }), first)).toEqual({
      status: 304,
      headers: { 'Cache-Control': 'public, no-cache', ETag: etag },
      body: null,
    });
  expect(unlessKnown(asking({ 'if-none-match': '"other"' }), first)).toBe(first);
  expect(documentAnswer({ ...page, html: '<p>Changed</p>' }, everyones).headers.ETag).not.toBe(etag);
});

it('knows no tag of what depended on the visitor', () => {
  const answer = documentAnswer(page, own);
  expect(unlessKnown(asking({ 'if-none-match': '*' }), answer)).toBe(answer);
});

it('lets only a walk be framed, and nothing run', () => {
  const policy = (walk: boolean) => documentAnswer(page, { ...own, walk }).headers['Content-Security-Policy'];
  expect(policy(false)).toContain("frame-ancestors 'none'");
  expect(policy(true)).toContain("frame-ancestors 'self'");
  expect(policy(false)).toContain("default-src 'none'");
  expect(policy(false)).not.toContain('script-src');
});
