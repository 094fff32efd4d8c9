/** The server as programs meet it: methods, codings, odd addresses, sockets that want something else. */
import { randomBytes } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { request as ask, type IncomingHttpHeaders } from 'node:http';
import { connect } from 'node:net';
import { gunzipSync } from 'node:zlib';
import { signIn } from './people';
import { expect, test } from './story';

interface Raw {
  readonly status: number;
  readonly headers: IncomingHttpHeaders;
  readonly body: Buffer;
}

const raw = (
  baseURL: string | undefined,
  path: string,
  { method = 'GET', headers = {} }: { method?: string; headers?: Record<string, string> } = {},
): Promise<Raw> =>
  new Promise((resolve, reject) => {
    const { hostname, port } = new URL(baseURL ?? '');
    ask({ hostname, port, path, method, headers }, (response) => {
      const parts: Buffer[] = [];
      response.on('data', (part: Buffer) => parts.push(part));
      response.on('end', () =>
        resolve({ status: response.statusCode ?? 0, headers: response.headers, body: Buffer.concat(parts) }),
      );
    })
      .on('error', reject)
      .end();
  });

test('the framework answers nothing of its own accord', async ({ baseURL }) => {
  const never = await raw(baseURL, '/never-there');
  expect(never.status).toBe(404);
  const routes = JSON.parse(readFileSync('.next/routes-manifest.json', 'utf8')) as {
    staticRoutes: { page: string }[];
  };
  const pages = Object.keys(JSON.parse(readFileSync('.next/server/pages-manifest.json', 'utf8')));
  const own = [
    ...routes.staticRoutes.map(({ page }) => page),
    ...pages,
    '/_next/image?url=%2Ffiles%2Fhill-picture%2Fhill-at-night.webp&w=640&q=75',
    '/_next/data/x/index.json',
    '/_next/static/never.js',
    '/_next/static/../server/app.js',
    '/_next/',
    '/_error',
    '/_document',
    '/_not-found',
    '/__nextjs_original-stack-frame',
    '/404',
    '/500',
    '/assets/site.json',
    '/assets/never',
    '/favicon.ico',
    '/index',
    '/desk/../_next/image',
  ].filter((path) => !/^\/desk(\/(?!\.\.)|$)/.test(path) && path !== '/');
  expect(own.length).toBeGreaterThan(15);
  for (const path of own) {
    const { status, headers, body } = await raw(baseURL, path);
    expect([path, status, headers['cache-control'], body.toString()]).toEqual([
      path,
      404,
      'private, no-store',
      never.body.toString(),
    ]);
  }
  for (const headers of [{ rsc: '1' }, { 'next-router-prefetch': '1' }, { 'x-nextjs-data': '1' }] as const)
    expect((await raw(baseURL, '/visit', { headers: { ...headers } })).headers['content-type']).toContain(
      'text/html',
    );
});

test('methods that an address does not take are refused with those it takes', async ({ baseURL }) => {
  for (const method of ['PUT', 'DELETE', 'PATCH', 'OPTIONS', 'TRACE', 'PROPFIND'])
    for (const path of ['/', '/visit', '/crew', '/never-there', '/search']) {
      const { status, headers } = await raw(baseURL, path, { method });
      expect([method, path, status, headers.allow]).toEqual([method, path, 405, 'GET, HEAD']);
    }
  const { status, headers, body } = await raw(baseURL, '/visit', { method: 'HEAD' });
  const whole = await raw(baseURL, '/visit');
  expect([status, headers['content-length'], body.length]).toEqual([200, String(whole.body.length), 0]);
});

test('a packed page is the same page, by a tag of its own', async ({ baseURL }) => {
  const path = '/files/hill-picture/hill-at-night.webp';
  const plain = await raw(baseURL, '/visit');
  const packed = await raw(baseURL, '/visit', { headers: { 'accept-encoding': 'br, gzip;q=0.5' } });
  expect(packed.headers['content-encoding']).toBe('gzip');
  expect(packed.headers.vary).toBe('Accept-Encoding');
  expect(gunzipSync(packed.body).toString()).toBe(plain.body.toString());
  for (const refusing of ['gzip;q=0', 'identity', 'br'])
    expect(
      (await raw(baseURL, '/visit', { headers: { 'accept-encoding': refusing } })).headers[
        'content-encoding'
      ],
    ).toBeUndefined();
  const part = await raw(baseURL, path, { headers: { 'accept-encoding': 'gzip', range: 'bytes=0-9' } });
  expect([part.status, part.headers['content-encoding'], part.body.length]).toEqual([206, undefined, 10]);
});

test('sockets that want to speak something else are closed, and bodies without end end nothing', async ({
  baseURL,
}) => {
  const { port } = new URL(baseURL ?? '');
  const closed = (text: string) =>
    new Promise<string>((resolve) => {
      const socket = connect(Number(port), 'localhost', () => socket.write(text));
      let said = '';
      socket.on('data', (part) => {
        said += part.toString('latin1');
      });
      socket.on('error', () => undefined).on('close', () => resolve(said));
    });
  for (const path of ['/desk', '/visit', '/_next/webpack-hmr'])
    expect(
      await closed(
        `GET ${path} HTTP/1.1\r\nHost: x\r\nConnection: Upgrade\r\nUpgrade: websocket\r\nSec-WebSocket-Key: x\r\nSec-WebSocket-Version: 13\r\n\r\n`,
      ),
    ).toMatch(/^HTTP\/1.1 400/);
  // Announced as more than is read: answered at once, and the line is closed.
  expect(
    await closed(
      'POST /sign-in HTTP/1.1\r\nHost: x\r\nContent-Type: application/x-www-form-urlencoded\r\nContent-Length: 900000000\r\n\r\nemail=a',
    ),
  ).toMatch(/^HTTP\/1.1 400/);
  expect((await raw(baseURL, '/api/health')).status).toBe(200);
});

test('rights are asked before a body is read, and what can’t be kept is refused in a sentence', async ({
  page,
  baseURL,
}) => {
  const guest = await raw(baseURL, '/desk/api/people/csv', { method: 'POST' });
  expect(guest.status).toBe(401);
  await signIn(page, 'greta', '/desk');
  const post = (path: string, data: unknown) => page.request.post(`/desk/api/${path}`, { data });
  for (const [path, data] of [
    ['people', { text: 'a\0b' }],
    ['names', { kind: 'add', of: 'role', name: 'A\0' }],
    ['people/change', { who: { ids: ['marek'] }, edit: { kind: 'field', field: 'valley', value: '\ud83d' } }],
    ['items', { kind: 'new page', parent: 'site', title: 'x\0' }],
    ['walks', { standIn: 'guest\0' }],
  ] as const) {
    const answer = await post(path, data);
    expect([path, answer.status()]).toEqual([path, 422]);
    expect((await answer.json()).title).toMatch(/can’t be kept/);
  }
  expect((await page.request.get('/desk/api/changes?person=%00')).status()).toBe(400);
});

test('a large upload comes back byte for byte, and a larger one gets a sentence', async ({ page }) => {
  await signIn(page, 'greta', '/desk');
  const large = Buffer.concat([Buffer.from('%PDF-1.7\n'), randomBytes(10_700_000)]);
  const sent = await page.request.post('/desk/api/files?name=large.pdf&parent=site', {
    data: large,
    headers: { 'Content-Type': 'application/octet-stream' },
    timeout: 30_000,
  });
  expect(sent.status()).toBe(200);
  const { item } = await sent.json();
  const got = await page.request.get(`/files/${item}/large.pdf`, { timeout: 30_000 });
  expect([got.status(), Buffer.compare(await got.body(), large)]).toEqual([200, 0]);
  const taken = await page.request.post('/desk/api/items', { data: { kind: 'remove', item } });
  expect(taken.status()).toBe(200);
  const larger = await page.request.post('/desk/api/files?name=larger.pdf&parent=site', {
    data: Buffer.concat([large, randomBytes(10_000_000)]),
    headers: { 'Content-Type': 'application/octet-stream' },
    timeout: 30_000,
  });
  expect(larger.status()).toBe(413);
  expect((await larger.json()).title).toContain('20 MB');
});

test('the desk runs nothing but its own scripts, and shows nothing from elsewhere', async ({ page }) => {
  await signIn(page, 'greta', '/desk');
  const response = await page.goto('/desk');
  const policy = response?.headers()['content-security-policy'] ?? '';
  expect(policy).toMatch(/script-src 'self' 'nonce-[\w+/=]+' 'strict-dynamic'/);
  expect(policy).toContain("img-src 'self' data: blob:");
  expect(response?.headers()['permissions-policy']).toContain('camera=()');
  const ran = await page.evaluate(() => {
    const script = document.createElement('div');
    script.innerHTML = '<img src="x" onerror="window.ran = true">';
    document.body.append(script);
    return new Promise((resolve) => setTimeout(() => resolve('ran' in window), 0));
  });
  expect(ran).toBe(false);
});
