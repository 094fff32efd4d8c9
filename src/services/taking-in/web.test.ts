/** A site on the web taken in: what is read of it, and what is not even asked. */

import { mkdtemp, rm } from 'node:fs/promises';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { afterAll, beforeAll, beforeEach, expect, it } from 'vitest';
import { type Material, readSource } from './material';
import { readSitemap } from './sitemap';
import { openWeb } from './web';

let server: Server;
let origin: string;
let folder: string;
/** What was asked for, in order. */
let asked: string[] = [];

const page = (title: string, body: string): string =>
  `<title>${title} – Old</title><main><h1>${title}</h1>${body}</main>`;
const sitemap = (urls: readonly string[]): string =>
  `<?xml version="1.0"?><urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">${urls.map((url) => `<url><loc>${url}</loc></url>`).join('')}</urlset>`;

let answers: Record<
  string,
  {
    readonly status?: number;
    readonly type?: string;
    readonly to?: string;
    readonly body?: string | Uint8Array;
    readonly hangs?: boolean;
  }
>;

beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'trivet-web-test-'));
  server = createServer(({ url = '' }, response) => {
    asked.push(url);
    const answer = answers[url];
    if (answer?.hangs) return;
    response.statusCode = answer ? (answer.status ?? 200) : 404;
    response.setHeader('Content-Type', answer?.type ?? 'text/html; charset=utf-8');
    if (answer?.to) response.setHeader('Location', answer.to);
    response.end(answer?.body ?? '');
  });
  await new Promise<void>((listening) => server.listen(0, '127.0.0.1', listening));
  origin = `http://localhost:${(server.address() as AddressInfo).port}`;
});
beforeEach(() => {
  asked = [];
  answers = {};
});
afterAll(async () => {
  server.closeAllConnections();
  server.close();
  await rm(folder, { recursive: true });
});

const never = () => new AbortController().signal;

const open = (at: string, begins = '', signal = never()) =>
  openWeb({ sitemap: at, begins }, [new URL(origin).host], signal, () => undefined);

async function read(at: string, begins = ''): Promise<Material> {
  const source = await open(at, begins);
  if ('problem' in source) throw new Error(source.problem);
  try {
    return await readSource(source, folder, never(), () => undefined);
  } finally {
    await source.close();
  }
}

it('reads the pages of a sitemap with their files, and says of the rest why not', async () => {
  answers = {
    '/sitemap.xml': {
      body: sitemap(
        ['/', '/About/Team.html', '/?p=12&amp;q=1', '/old', '/away', '/broken', '/data', '/large', '/gone']
          .map((one) => origin + one)
          .concat('https://elsewhere.example/'),
      ),
    },
    '/': {
      body: page(
        'Home',
        '<a href="/papers/plan.txt">Plan</a> <a href="/not-in-it">x</a> <img src="/hall.png"> <img src="https://cdn.example/x.png">',
      ),
    },
    '/About/Team.html': {
      body: Buffer.from(page('Fjäll', ''), 'latin1'),
      type: 'text/html; charset=iso-8859-1',
    },
    '/?p=12&q=1': { body: page('Twelve', '') },
    '/old': { status: 301, to: '/new' },
    '/new': { body: page('New', '') },
    '/away': { status: 302, to: 'http://127.0.0.1:9/' },
    '/broken': { status: 500 },
    '/data': { type: 'application/json', body: '{}' },
    '/large': { body: 'x'.repeat(2_100_000) },
    '/papers/plan.txt': { type: 'text/plain', body: 'The plan.' },
  };
  const found = await read(`${origin}/sitemap.xml`);
  expect(found.texts.map(({ path, formerPath, document }) => [path, formerPath, document.title])).toEqual([
    ['', null, 'Home'],
    ['About/Team.html', null, 'Fjäll'],
    ['?p=12&q=1', null, 'Twelve'],
    ['new', 'old', 'New'],
  ]);
  expect([...found.files.keys()]).toEqual(['papers/plan.txt']);
  expect(Object.fromEntries(found.leftOut.map(({ path, why }) => [path, why]))).toEqual({
    'https://elsewhere.example/': 'It is another site than the sitemap’s.',
    '/away': 'It leads on to another site: 127.0.0.1:9.',
    '/broken': 'The server answers 500 instead of a page.',
    '/data': 'It is no page but application/json.',
    '/large': 'It is larger than 2 MB.',
    '/gone': 'The server answers 404 instead of a page.',
    '/hall.png': 'The server answers 404 instead of a page.',
  });
  expect(asked).not.toContain('/not-in-it');
});

it('follows a sitemap of sitemaps, packed or not, and no further than is wished', async () => {
  const index = `<sitemapindex><sitemap><loc>${origin}/a.xml.gz</loc></sitemap><sitemap><loc>${origin}/index.xml</loc></sitemap><sitemap><loc>https://elsewhere.example/b.xml</loc></sitemap><sitemap><loc>${origin}/none.xml</loc></sitemap></sitemapindex>`;
  answers = {
    '/index.xml': { body: index },
    '/a.xml.gz': { body: gzipSync(sitemap([`${origin}/blog/one`, `${origin}/about`])) },
    '/blog/one': { body: page('One', '') },
  };
  const found = await read(`${origin}/index.xml`, '/blog/');
  expect(found.texts.map(({ path }) => path)).toEqual(['blog/one']);
  expect(found.leftOut.map(({ path }) => path)).toEqual([
    'https://elsewhere.example/b.xml',
    `${origin}/none.xml`,
  ]);
  expect(asked).not.toContain('/about');
});

it('takes 50,000 addresses for too many, and says what to do', async () => {
  answers = {
    '/sitemap.xml': { body: sitemap(Array.from({ length: 50_000 }, (_, one) => `${origin}/page-${one}`)) },
  };
  expect(await open(`${origin}/sitemap.xml`)).toEqual({
    problem: expect.stringMatching(/50000 pages.*at most 5000.*begin with/),
  });
  expect(asked).toEqual(['/sitemap.xml']);
});

it('reads nothing that is not on the public internet, however it is written', async () => {
  const nowhere = async (at: string) => {
    const answer = await openWeb({ sitemap: at, begins: '' }, [], never(), () => undefined);
    return 'problem' in answer ? answer.problem : 'It was read.';
  };
  const port = new URL(origin).port;
  for (const at of [
    origin,
    `http://127.0.0.1:${port}`,
    `http://[::1]:${port}`,
    `http://[::ffff:127.0.0.1]:${port}`,
    'http://169.254.169.254',
    'http://10.0.0.1',
    'http://2130706433',
    'http://0.0.0.0',
    'http://[fd00::1]',
  ])
    expect(await nowhere(`${at}/sitemap.xml`)).toMatch(/not on the public internet/);
  expect(await nowhere('ftp://place.example/sitemap.xml')).toMatch(/whole address/);
  expect(await nowhere('sitemap.xml')).toMatch(/whole address/);
  expect(asked).toEqual([]);
});

it('stops asking a site that does not answer any more, and when it is told to', async () => {
  const many = Array.from({ length: 100 }, (_, one) => `${origin}/p${one}`);
  answers = { '/sitemap.xml': { body: sitemap(many) } };
  const source = await open(`${origin}/sitemap.xml`);
  if ('problem' in source) throw new Error(source.problem);
  const found = await readSource(source, folder, never(), () => undefined);
  expect(asked.length).toBeLessThan(40);
  expect(found.leftOut).toHaveLength(100);
  await source.close();

  answers = { '/sitemap.xml': { body: sitemap([`${origin}/slow`]) }, '/slow': { hangs: true } };
  const stop = new AbortController();
  const slow = await open(`${origin}/sitemap.xml`, '', stop.signal);
  if ('problem' in slow) throw new Error(slow.problem);
  const reading = readSource(slow, folder, stop.signal, () => undefined);
  while (!asked.includes('/slow')) await new Promise(setImmediate);
  stop.abort();
  await expect(reading).rejects.toThrow('stopped');
  await slow.close();
});

it('knows a sitemap from what is none', async () => {
  const said = async (text: string | Uint8Array) =>
    readSitemap(typeof text === 'string' ? new TextEncoder().encode(text) : new Uint8Array(text));
  expect(await said('<html></html>')).toHaveProperty('problem');
  expect(await said('{}')).toHaveProperty('problem');
  // Each of these would take until tomorrow to whoever reads it again and again.
  for (const hostile of [
    '<!-- -->'.repeat(100_000),
    `<urlset>${'<loc>'.repeat(200_000)}`,
    `<urlset><loc>${' '.repeat(2_000_000)}`,
    `<urlset>${'<loc><![CDATA['.repeat(200_000)}`,
    '<'.repeat(1_000_000),
  ])
    expect(await said(hostile)).toEqual(expect.not.objectContaining({ urls: [expect.anything()] }));
  expect(await said(gzipSync(Buffer.alloc(30_000_000)))).toHaveProperty('problem');
  expect(
    await said(
      '<!-- x --><urlset><url><loc><![CDATA[https://a.example/?a=1&b=2]]></loc></url><url><loc> https://a.example/&#228;&amp; </loc></url></urlset>',
    ),
  ).toEqual({
    kind: 'pages',
    urls: ['https://a.example/?a=1&b=2', 'https://a.example/ä&'],
  });
});
