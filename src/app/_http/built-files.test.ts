import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { gzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { serveBuilt } from './built-files';
import { packs, wantsPacked } from './packing';

const plain = Buffer.from('export const words = 1;'.repeat(100));
const script = { type: 'text/javascript; charset=utf-8', plain, packed: gzipSync(plain) };
const font = { type: 'font/woff2', plain, packed: null };

const server = createServer((request, response) =>
  serveBuilt(request.url === '/font' ? font : script, request, response),
);
let address = '';
beforeAll(async () => {
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(() => server.close());

describe('a file of the framework', () => {
  it('is kept by browsers for good, and packed for those who take it', async () => {
    const response = await fetch(address, { headers: { 'accept-encoding': 'gzip' } });
    expect(Object.fromEntries(response.headers)).toMatchObject({
      'content-type': script.type,
      'content-encoding': 'gzip',
      'content-length': String(script.packed.length),
      'cache-control': 'public, max-age=31536000, immutable',
      'x-content-type-options': 'nosniff',
      vary: 'Accept-Encoding',
    });
    expect(await response.text()).toBe(plain.toString());
  });

  it.each([
    ['who do not', '/', 'gzip;q=0'],
    ['where it gains nothing', '/font', 'gzip'],
  ])('is not packed for those %s', async (_, path, coding) => {
    const response = await fetch(address + path, { headers: { 'accept-encoding': coding } });
    expect(response.headers.get('content-encoding')).toBeNull();
    expect(response.headers.get('content-length')).toBe(String(plain.length));
  });

  it('answers HEAD with the headers alone, and takes nothing else', async () => {
    const head = await fetch(address, { method: 'HEAD', headers: { 'accept-encoding': 'identity' } });
    expect([head.headers.get('content-length'), await head.text()]).toEqual([String(plain.length), '']);
    const sent = await fetch(address, { method: 'POST', body: 'x' });
    expect([sent.status, sent.headers.get('allow')]).toEqual([405, 'GET, HEAD']);
  });
});

describe('packing', () => {
  it.each([
    ['gzip', true],
    ['br, gzip;q=0.5', true],
    ['*', true],
    ['*, gzip;q=0', false],
    ['GZIP ; q=0.0', false],
    ['br', false],
    [undefined, false],
  ])('is wanted with %s: %s', (header, wanted) => expect(wantsPacked(header)).toBe(wanted));

  it.each([
    ['text/html; charset=utf-8', 1000, true],
    ['text/html', 999, false],
    ['application/feed+json', 5000, true],
    ['image/png', 5000, false],
    [null, 5000, false],
  ])('of %s with %i bytes: %s', (type, length, gains) => expect(packs(type, length)).toBe(gains));
});
