/** The stand-in till over HTTP, as the site asks it and as buyers use it; and the site’s client against tills that are none. */
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { asId, type Notice } from '../src/core';
import { checkSignature, signed, type TillOrder, tillAt } from '../src/services';
import { emptyLedger, type Ledger } from './ledger';
import { tillServer } from './server';

const KEYS = [1, 2].map((byte) => `whsec_${Buffer.alloc(32, byte).toString('base64')}`);

/** A site that takes notices, or fails so many times first. */
function siteThatTakes() {
  const taken: Notice[] = [];
  const refused: string[] = [];
  const state = { failing: 0, at: 0, server: createServer() };
  state.server.on('request', (request, response) => {
    const parts: Buffer[] = [];
    request.on('data', (part: Buffer) => parts.push(part));
    request.on('end', () => {
      const body = Buffer.concat(parts).toString();
      const header = (name: string) => (request.headers[name] as string | undefined) ?? null;
      const time = new Date(Number(header('webhook-timestamp')) * 1000);
      const genuine = checkSignature(KEYS, header, body, time);
      state.at = time.getTime();
      if ('problem' in genuine) refused.push(genuine.problem);
      if (state.failing-- > 0) response.writeHead(500).end();
      else {
        taken.push(JSON.parse(body) as Notice);
        response.end();
      }
    });
  });
  return { taken, refused, state };
}

const listening = (server: Server): Promise<string> =>
  new Promise((resolve) =>
    server.listen(0, '127.0.0.1', () =>
      resolve(`http://127.0.0.1:${(server.address() as AddressInfo).port}`),
    ),
  );

let site: ReturnType<typeof siteThatTakes>;
let ledger: Ledger;
let origin: string;
let close: () => Promise<void>;
beforeEach(async () => {
  site = siteThatTakes();
  const notify = await listening(site.state.server);
  ledger = emptyLedger;
  const spare = createServer();
  origin = await listening(spare);
  await new Promise((resolve) => spare.close(resolve));
  const made = tillServer({
    notify: `${notify}/shop/notices`,
    keys: KEYS,
    origin,
    ledger,
    keep: (next) => {
      ledger = next;
    },
    slow: 1,
    again: [1, 1, 1],
  });
  await new Promise<void>((resolve) =>
    made.server.listen(Number(new URL(origin).port), '127.0.0.1', resolve),
  );
  close = made.close;
});
afterEach(async () => {
  await close();
  site.state.server.closeAllConnections();
  await new Promise((resolve) => site.state.server.close(resolve));
});

const order = (over: Partial<TillOrder> = {}): TillOrder => ({
  order: asId('order-1'),
  what: 'Observer <pass>',
  email: 'nell@arden.example',
  currency: 'EUR',
  first: 1200,
  renewal: { amount: 1200, months: 1 },
  freeDays: 0,
  trial: false,
  returnTo: 'http://localhost/shop/order/order-1',
  timeZone: 'UTC',
  payUntil: Date.now() + 60_000,
  ...over,
});
const press = (page: string, fields: Readonly<Record<string, string>>) =>
  fetch(page, { method: 'POST', body: new URLSearchParams(fields), redirect: 'manual' });
const until = async (holds: () => boolean) => {
  for (let turn = 0; turn < 5000 && !holds(); turn++) await new Promise((resolve) => setImmediate(resolve));
  expect(holds()).toBe(true);
};

describe('the stand-in till', () => {
  it('is told of an order once, is paid on its own page, tells it signed, and leads back', async () => {
    const till = tillAt({ url: origin, keys: KEYS });
    const now = new Date();
    await till.meet(now);
    expect(till.standIn).toBe(true);
    const { reference, payPage } = await till.open(order(), now);
    expect(await till.open(order(), now)).toEqual({ reference, payPage });
    const page = await (await fetch(payPage)).text();
    expect(page).toContain('Observer &#60;pass&#62;');
    expect(page).toContain('12.00 €');
    const back = await press(payPage, { do: 'pay', card: 'good' });
    expect([back.status, back.headers.get('location')]).toEqual([303, order().returnTo]);
    await until(() => site.taken.length === 1);
    expect(site.refused).toEqual([]);
    expect(site.taken[0]).toMatchObject({ kind: 'paid', order: 'order-1', amount: 1200 });
    // Pressed twice, it is paid once.
    await press(payPage, { do: 'pay', card: 'good' });
    expect((await till.notices(reference, now)).length).toBe(1);
    expect(await (await fetch(payPage)).text()).toContain('This is paid.');
  });

  it('tells again what was not taken, slowly where it is to be slow, and never where it is to lose it', async () => {
    const till = tillAt({ url: origin, keys: KEYS });
    const now = new Date();
    site.state.failing = 2;
    const { payPage } = await till.open(order(), now);
    await press(payPage, { do: 'slow' });
    await until(() => site.taken.length === 1);
    const lost = await till.open(order({ order: asId('order-2') }), now);
    await press(lost.payPage, { do: 'lose' });
    expect((await till.notices(lost.reference, now)).map(({ kind }) => kind)).toEqual(['paid']);
    expect(site.taken).toHaveLength(1);
  });

  it('lets the card’s owner ask the bank for the money, once, and the bank decide', async () => {
    const till = tillAt({ url: origin, keys: KEYS });
    const now = new Date();
    const { reference, payPage } = await till.open(order(), now);
    // Of what is not paid there is nothing to ask for.
    await press(payPage, { do: 'open' });
    expect(await till.notices(reference, now)).toEqual([]);
    await press(payPage, { do: 'pay' });
    await press(payPage, { do: 'won' });
    const pressed = async (step: string) => {
      expect((await press(payPage, { do: step })).headers.get('location')).toBe(`/pay/${reference}`);
      return (await fetch(payPage)).text();
    };
    expect(await pressed('open')).toContain('The bank looks into it.');
    await pressed('open');
    expect(await pressed('lost')).toContain('took the money back');
    await pressed('won');
    await until(() => site.taken.length === 3);
    expect(site.taken.map((one) => (one.kind === 'disputed' ? one.outcome : one.kind))).toEqual([
      'paid',
      'open',
      'lost',
    ]);
  });

  it('asks the bank, is declined, and leaves alone what was only looked at', async () => {
    const till = tillAt({ url: origin, keys: KEYS });
    const now = new Date();
    const { payPage } = await till.open(order(), now);
    expect(await (await press(payPage, { do: 'bank', card: 'good' })).text()).toContain(
      'whether this is you',
    );
    expect((await press(payPage, { do: 'close' })).status).toBe(303);
    await press(payPage, { do: 'decline' });
    await until(() => site.taken.length === 1);
    expect(site.taken[0]).toMatchObject({ kind: 'failed' });
    expect((await fetch(`${origin}/pay/none`)).status).toBe(404);
    // It leads to the shop of the order, wherever it is asked to lead.
    const card = await press(`${origin}/card/${payPage.split('/').at(-1)}`, {
      do: 'close',
      returnTo: 'https://elsewhere.example/',
    });
    expect(card.headers.get('location')).toBe(order().returnTo);
  });

  it('moves its clock on and tells everything that happens until then, in order', async () => {
    const till = tillAt({ url: origin, keys: KEYS });
    const now = new Date();
    const { payPage, reference } = await till.open(order(), now);
    await press(payPage, { do: 'pay', card: 'refused next time' });
    const later = new Date(now.getTime() + 60 * 86_400_000);
    await till.moveOn(later, now);
    expect(site.taken.map(({ kind }) => kind)).toEqual(['paid', ...new Array(8).fill('failed'), 'cancelled']);
    expect(Math.abs(site.state.at - later.getTime())).toBeLessThan(60_000);
    await till.cancel(reference, 'now', later);
    await till.refund(reference, { key: 'one', amount: 1200, ends: true }, later);
    await till.refund(reference, { key: 'one', amount: 1200, ends: true }, later);
    const told = await till.notices(reference, later);
    expect(told.filter(({ kind }) => kind === 'refunded')).toHaveLength(1);
  });

  it('refuses the site where it is not genuine', async () => {
    const other = tillAt({ url: origin, keys: [`whsec_${Buffer.alloc(32, 9).toString('base64')}`] });
    await expect(other.open(order(), new Date())).rejects.toThrow('can’t be read');
    await expect(
      tillAt({ url: origin, keys: KEYS }).open(order(), new Date(Date.now() - 400_000)),
    ).rejects.toThrow();
    expect(ledger.accounts).toEqual([]);
  });
});

describe('a till that is none', () => {
  const now = new Date();
  const answering = (status: number, body: string, by = KEYS, more: HeadersInit = {}) =>
    tillAt(
      { url: 'https://till.example', keys: KEYS },
      async () => new Response(body, { status, headers: { ...signed(by, 'x', body, now), ...more } }),
    );
  const trouble = async (till: ReturnType<typeof tillAt>) =>
    till.open(order(), now).then(
      () => 'opened',
      (error: Error) => error.message,
    );
  const right = JSON.stringify({ reference: 'r', payPage: 'https://till.example/pay/r' });

  it('is told from one that does not answer', async () => {
    expect(await trouble(answering(200, right))).toBe('opened');
    const down = tillAt({ url: 'https://till.example', keys: KEYS }, () =>
      Promise.reject(new Error('refused')),
    );
    expect(await trouble(down)).toMatch(/does not answer/);
    expect(await trouble(answering(502, 'Bad gateway'))).toMatch(/does not answer/);
    const nonsense = [
      answering(200, 'nonsense'),
      answering(200, '{}'),
      answering(404, right),
      answering(200, right, [`whsec_${Buffer.alloc(32, 9).toString('base64')}`]),
      answering(200, JSON.stringify({ reference: 'r', payPage: 'https://elsewhere.example/pay' })),
      answering(200, JSON.stringify({ reference: 'r', payPage: 'javascript:alert(1)' })),
      answering(200, ' '.repeat(3_000_000)),
    ];
    for (const till of nonsense) expect(await trouble(till)).toMatch(/can’t be read/);
  });

  it('tells nothing that is not a notice', async () => {
    const told = (notice: object) => answering(200, JSON.stringify({ notices: [notice] })).notices('r', now);
    const paid = {
      kind: 'paid',
      id: 'n',
      order: 'o',
      at: 1,
      on: '2026-11-20',
      amount: 1,
      currency: 'EUR',
      period: null,
    };
    expect(await told(paid)).toEqual([paid]);
    for (const wrong of [
      { ...paid, amount: -1 },
      { ...paid, amount: 1.5 },
      { ...paid, amount: 1e15 },
      { ...paid, currency: 'EURO' },
      { ...paid, on: '2026-02-30' },
      { ...paid, kind: 'bought' },
      { ...paid, more: true },
      { ...paid, period: { from: '2026-12-01', until: '2026-11-01', renews: null, trial: false } },
    ])
      await expect(told(wrong)).rejects.toThrow('can’t be read');
  });
});
