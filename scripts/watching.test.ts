/** What a server tells of its work: metrics in an open format for whoever may read them, lines without anybody in them. */
import { EventEmitter } from 'node:events';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { expect, it } from 'vitest';
import { metricsFor } from '../src/app/_http/metrics';
import { noteTrouble, tellTroubleTo } from '../src/services';
import { watching, withoutSecrets } from './watching';

const TOKEN = 'a-token-that-nobody-guesses';

/** A response that is answered, or hung up on. */
function response(statusCode: number, writableFinished = true): ServerResponse {
  return Object.assign(new EventEmitter(), { statusCode, writableFinished }) as unknown as ServerResponse;
}

it('watches nothing that nobody asked for', () => {
  expect(watching({ log: 'none', metricsToken: null }, () => null)).toBe(null);
});

it('counts requests by who answered them and how, for whoever has the token', async () => {
  const watch = watching({ log: 'none', metricsToken: TOKEN }, () => null);
  const incoming = { method: 'GET' } as IncomingMessage;
  for (const [of, status, finished] of [
    ['site', 200, true],
    ['site', 304, true],
    ['site', 200, true],
    ['desk', 403, true],
    ['site', 200, false],
  ] as const) {
    const outgoing = response(status, finished);
    watch?.(of, '/', incoming, outgoing);
    outgoing.emit('close');
  }
  expect(await metricsFor(null, TOKEN)).toBe(null);
  expect(await metricsFor('Bearer another-token-of-some-length', TOKEN)).toBe(null);
  expect(await metricsFor(`Bearer ${TOKEN}`, null)).toBe(null);
  const text = (await metricsFor(`Bearer ${TOKEN}`, TOKEN)) ?? '';
  expect(text).toContain('trivet_requests_total{of="site",status="2xx"} 2');
  expect(text).toContain('trivet_requests_total{of="site",status="3xx"} 1');
  expect(text).toContain('trivet_requests_total{of="site",status="hung up"} 1');
  expect(text).toContain('trivet_requests_total{of="desk",status="4xx"} 1');
  expect(text).toContain('trivet_request_seconds_count{of="site"} 4');
  // The format says where it ends (OpenMetrics 1.0 §ABNF).
  expect(text.trimEnd().endsWith('# EOF')).toBe(true);
});

it('writes requests and what goes wrong as lines of JSON, with nothing of an error but its words', () => {
  const written: string[] = [];
  const lines = () => ({ write: (line: string) => void written.push(line) });
  const watch = watching({ log: 'requests', metricsToken: null }, () => null, lines);
  try {
    const outgoing = response(200);
    watch?.('site', '/visit?token=abc', { method: 'GET' } as IncomingMessage, outgoing);
    outgoing.emit('close');
    noteTrouble('A request failed.', Object.assign(new TypeError('no such thing'), { params: ['secret'] }));
    noteTrouble('A request failed.', 'just a text');
  } finally {
    tellTroubleTo(null);
  }
  const [request, trouble, text] = written.map((line) => JSON.parse(line));
  expect(request).toMatchObject({ level: 30, of: 'site', method: 'GET', status: 200 });
  expect(trouble).toMatchObject({
    level: 50,
    msg: 'A request failed.',
    error: { name: 'TypeError', message: 'no such thing', stack: expect.stringContaining('watching.test') },
  });
  expect(text).toMatchObject({ level: 50, error: { message: 'just a text' } });
  expect(written.join('')).not.toMatch(/secret|token|visit/);
});

it.each([
  ['/visit?token=abc', '/visit'],
  ['/reset/owner/0123456789abcdefghijklmnopqrstuvwxyzABCDEFG?x', '/reset/owner/…'],
  [
    '/files/d51a5ce8-10dd-4be4-9e30-fa839af96184/f0.pdf',
    '/files/d51a5ce8-10dd-4be4-9e30-fa839af96184/f0.pdf',
  ],
])('writes of %s no more than %s', (target, path) => {
  expect(withoutSecrets(target)).toBe(path);
});
