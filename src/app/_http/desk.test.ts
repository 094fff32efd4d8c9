import { afterAll, beforeAll, expect, it, vi } from 'vitest';
import { Busy, type Trivet } from '@/services';
import { openLarkfell, signedInAt } from '@/services/testing';
import { forDesk, json, withBytes } from './desk';
import { SESSION_COOKIE } from './session-cookie';

const holder = globalThis as { __trivet?: Promise<Trivet> };
let trivet: Trivet;
const tokens = new Map<string, string>();
const handler = vi.fn(() => json({ done: true }));

beforeAll(async () => {
  trivet = await openLarkfell();
  holder.__trivet = Promise.resolve(trivet);
  for (const who of ['greta', 'marek']) {
    const { token } = await signedInAt(trivet, who, new Date());
    tokens.set(who, token);
  }
});
afterAll(async () => {
  delete holder.__trivet;
  await trivet.close();
});

const request = (who: string | null, headers: Record<string, string> = {}, body = '{}') =>
  new Request('http://larkfell.example/desk/api/draft', {
    method: 'PUT',
    body,
    headers: {
      host: 'larkfell.example',
      ...(who !== null && { cookie: `${SESSION_COOKIE}=${tokens.get(who)}` }),
      ...headers,
    },
  });

const statusOf = async (asked: Request): Promise<[number, number]> => {
  handler.mockClear();
  return [(await forDesk(asked, 'look', handler)).status, handler.mock.calls.length];
};

it('does what an administrator asks from the desk', async () => {
  expect(await statusOf(request('greta'))).toEqual([200, 1]);
  expect(await statusOf(request('greta', { 'sec-fetch-site': 'same-origin' }))).toEqual([200, 1]);
  expect(await statusOf(request('greta', { origin: 'http://larkfell.example' }))).toEqual([200, 1]);
});

it.each([
  { 'sec-fetch-site': 'cross-site' },
  { 'sec-fetch-site': 'same-site' },
  { origin: 'https://elsewhere.example' },
  { origin: 'null' },
])('does nothing that another site sends along with the administrator’s cookie: %o', async (headers) => {
  expect(await statusOf(request('greta', headers))).toEqual([403, 0]);
  const bytes = await withBytes(request('greta', headers), 'look', 100, () => json({}));
  expect(bytes.status).toBe(403);
});

it('does nothing for members and guests, and reads nothing of theirs', async () => {
  expect(await statusOf(request('marek'))).toEqual([403, 0]);
  expect(await statusOf(request(null))).toEqual([401, 0]);
  const unread = request('marek');
  await forDesk(unread, 'look', handler);
  expect(unread.bodyUsed).toBe(false);
});

it('refuses what is too large, no JSON, or can’t be kept, with a sentence', async () => {
  expect(await statusOf(request('greta', {}, 'x'.repeat(4_000_001)))).toEqual([413, 0]);
  expect(await statusOf(request('greta', {}, '{'))).toEqual([400, 0]);
  expect(await statusOf(request('greta', {}, '{"name":"a\\u0000"}'))).toEqual([422, 0]);
  expect((await withBytes(request('greta', {}, 'x'.repeat(101)), 'look', 100, () => json({}))).status).toBe(
    413,
  );
});

it('says when too many do the same, and tells nobody what went wrong', async () => {
  const failing = (error: Error) =>
    forDesk(request('greta'), 'look', () => {
      throw error;
    });
  const busy = await failing(new Busy());
  expect([busy.status, (await busy.json()).title]).toEqual([503, expect.stringContaining('Try again')]);
  const log = vi.spyOn(console, 'error').mockImplementation(() => {});
  const broken = await failing(new Error('secret'));
  expect([broken.status, await broken.text()]).toEqual([500, expect.not.stringContaining('secret')]);
  expect(log).toHaveBeenCalledOnce();
  log.mockRestore();
});
