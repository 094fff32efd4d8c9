import { expect, it } from 'vitest';
import { htmlResponse, respond, seeOther } from './response';

const asking = (headers: Record<string, string> = {}) => new Request('http://larkfell.example/', { headers });
const page = { status: 200, html: '<p>Open</p>' } as const;

it('never lets a cache keep what depended on the visitor', () => {
  for (const response of [
    respond(asking(), page, false, false),
    respond(asking(), { status: 404, html: '' }, false, false),
    respond(asking(), { status: 303, location: '/sign-in' }, false, false),
    seeOther('/'),
    htmlResponse('', { status: 422 }),
  ]) {
    expect(response.headers.get('cache-control')).toBe('private, no-store');
    expect(response.headers.get('etag')).toBeNull();
  }
});

it('gives what is the same for everyone an ETag, and 304 to whoever has it', async () => {
  const first = respond(asking(), page, false, true);
  const etag = first.headers.get('etag') ?? '';
  expect(first.headers.get('cache-control')).toBe('public, no-cache');
  expect(etag).toMatch(/^"[\w-]+"$/);
  for (const known of [etag, `W/${etag}`, `"other", ${etag}`, '*']) {
    const again = respond(asking({ 'if-none-match': known }), page, false, true);
    expect([again.status, await again.text()]).toEqual([304, '']);
  }
  expect(respond(asking({ 'if-none-match': '"other"' }), page, false, true).status).toBe(200);
  const changed = respond(asking(), { ...page, html: '<p>Changed</p>' }, false, true);
  expect(changed.headers.get('etag')).not.toBe(etag);
});

it('lets only a walk be framed, and nothing run', () => {
  const policy = (walk: boolean) =>
    respond(asking(), page, walk, false).headers.get('content-security-policy');
  expect(policy(false)).toContain("frame-ancestors 'none'");
  expect(policy(true)).toContain("frame-ancestors 'self'");
  expect(policy(false)).toContain("default-src 'none'");
  expect(policy(false)).not.toContain('script-src');
});
