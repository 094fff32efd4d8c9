/** The shop's doors: buying without scripts, coming back, what is told at each step, and what strangers and forgers get. */
import { afterAll, afterEach, beforeEach, describe, expect, it } from 'vitest';
import { asId, type Notice, type PersonId } from '@/core';
import { sellWith, signed, type Trivet } from '@/services';
import { now, openLarkfell, signedInAt } from '@/services/testing';
import { referenceIn, TEST_KEYS, type TestTill, testTill } from '@/services/testing-till';
import { siteResponse } from '.';

let trivet: Trivet;
let till: TestTill;
beforeEach(async () => {
  await trivet?.close();
  trivet = await openLarkfell();
  till = testTill();
  sellWith(till);
});
afterEach(() => sellWith(null));
afterAll(() => trivet.close());

const later = (minutes: number) => new Date(now.getTime() + minutes * 60_000);
const ask = (path: string, cookie: string | null = null, at = now) =>
  siteResponse(
    trivet,
    new Request(`http://localhost${path}`, { headers: cookie ? { cookie: `trivet_session=${cookie}` } : {} }),
    at,
  );
const post = (
  path: string,
  fields: Readonly<Record<string, string>>,
  cookie: string | null = null,
  at = now,
) =>
  siteResponse(
    trivet,
    new Request(`http://localhost${path}`, {
      method: 'POST',
      body: new URLSearchParams(fields),
      headers: cookie ? { cookie: `trivet_session=${cookie}` } : {},
    }),
    at,
  );
const sessionIn = (response: Response): string | null =>
  /trivet_session=([^;]+)/.exec(response.headers.get('set-cookie') ?? '')?.[1] ?? null;
const tell = (
  notice: object,
  over: { keys?: readonly string[]; id?: string; at?: Date; body?: string } = {},
) => {
  const body = over.body ?? JSON.stringify(notice);
  const id = over.id ?? (notice as Notice).id;
  return siteResponse(
    trivet,
    new Request('http://localhost/shop/notices', {
      method: 'POST',
      body,
      headers: {
        'content-type': 'application/json',
        ...signed(over.keys ?? TEST_KEYS, id, body, over.at ?? now),
      },
    }),
    now,
  );
};
const fields = { price: 'observer-month', name: 'Nell Arden', email: 'nell@arden.example', next: '/tonight' };
const closed = 'This opens to Observers and above.';
const orderOf = (at: Date = now): string => till.told(at)[0]?.order ?? '';

describe('from a teaser to the page, unlocked', () => {
  it('takes a guest along, without scripts', async () => {
    const teaser = await (await ask('/tonight')).text();
    expect(teaser).toContain(closed);
    expect(teaser).toContain('href="/shop/observer-pass?next=%2Ftonight"');
    const form = await ask('/shop/observer-pass?next=%2Ftonight');
    // Its form leads to the till, and nothing else on the site does.
    expect(form.headers.get('content-security-policy')).toContain("form-action 'self' https://till.example");
    expect(teaser).not.toContain('till.example');
    const off = await post('/shop/observer-pass', fields);
    expect(off.status).toBe(303);
    const payPage = off.headers.get('location') ?? '';
    const session = sessionIn(off);
    till.pay(payPage, now);
    const order = orderOf();
    // Before the notice has come, it is asked for; until then the page waits.
    till.down = true;
    const waiting = await ask(`/shop/order/${order}`, session, later(1));
    expect(waiting.status).toBe(200);
    expect(await waiting.text()).toContain('http-equiv="refresh"');
    till.down = false;
    const back = await ask(`/shop/order/${order}`, session, later(2));
    expect([back.status, back.headers.get('location')]).toEqual([303, '/tonight']);
    const page = await (await ask('/tonight', sessionIn(back), later(2))).text();
    expect(page).toContain('arc seconds');
    expect(page).not.toContain(closed);
    // To everybody else it is as closed as before.
    expect(await (await ask('/tonight', null, later(2))).text()).toContain(closed);
  });

  it('lets a notice that comes first open it at once', async () => {
    const off = await post('/shop/observer-pass', fields);
    till.pay(off.headers.get('location') ?? '', now);
    const [paid] = till.told(now);
    expect((await tell(paid ?? {})).status).toBe(200);
    const back = await ask(`/shop/order/${orderOf()}`, sessionIn(off));
    expect(back.headers.get('location')).toBe('/tonight');
  });

  it('keeps everything that was typed when it is declined', async () => {
    const off = await post('/shop/observer-pass', fields);
    till.decline(off.headers.get('location') ?? '', now);
    await tell(till.told(now)[0] ?? {});
    const page = await (await ask(`/shop/order/${orderOf()}`, sessionIn(off))).text();
    expect(page).toContain('It was not paid');
    const again = /href="(\/shop\/observer-pass[^"]*)"/.exec(page)?.[1]?.replaceAll('&amp;', '&') ?? '';
    const form = await (await ask(again)).text();
    for (const value of ['Nell Arden', 'nell@arden.example', 'value="/tonight"'])
      expect(form).toContain(value);
  });
});

describe('before it is paid', () => {
  it('says what is wrong next to it, and keeps what was typed', async () => {
    const wrong = await post('/shop/observer-pass', { ...fields, email: 'nobody', name: '' });
    expect(wrong.status).toBe(422);
    const html = await wrong.text();
    expect(html).toContain('id="email-problem"');
    expect(html).toContain('id="name-problem"');
    expect(html).toContain('value="nobody"');
    const account = await post('/shop/observer-pass', { ...fields, email: 'tobin@larkfell.example' });
    expect(await account.text()).toContain('Sign in first');
  });

  it('says that they have it, that it is sold out, and that nothing can be paid', async () => {
    const { token } = await signedInAt(trivet, 'tobin');
    expect(await (await ask('/shop/observer-pass', token)).text()).toContain(
      'You have Observer pass already.',
    );
    sellWith(null);
    expect(await (await ask('/shop/keeper-pass', token)).text()).toContain(
      'Nothing can be paid here just now',
    );
    expect((await post('/shop/keeper-pass', { price: 'keeper-year' }, token)).status).toBe(503);
  });

  it('shows prices to those who can have them, and to nobody else', async () => {
    const school = '125.00';
    const [sunniva, marek] = [await signedInAt(trivet, 'sunniva'), await signedInAt(trivet, 'marek')];
    for (const path of ['/shop', '/join', '/shop/keeper-pass']) {
      expect([path, (await (await ask(path, sunniva.token)).text()).includes(school)]).toEqual([path, true]);
      for (const cookie of [null, marek.token])
        expect([path, (await (await ask(path, cookie)).text()).includes(school)]).toEqual([path, false]);
    }
  });

  it('has nothing for what is not sold, as for what was never there', async () => {
    const bytes = async (path: string) => [(await ask(path)).status, (await (await ask(path)).text()).length];
    expect(await bytes('/shop/nothing-like-it')).toEqual(await bytes('/nowhere'));
    for (const path of [
      '/shop/order',
      '/shop/order/none',
      '/shop/a/b',
      '/shop/order/a/b',
      '/me/receipt/a',
      '/me/purchases/x',
    ])
      expect([path, (await ask(path)).status === 200]).toEqual([path, false]);
  });
});

describe('notices', () => {
  const told = async () => {
    const off = await post('/shop/observer-pass', fields);
    till.pay(off.headers.get('location') ?? '', now);
    const [paid] = till.told(now);
    if (!paid) throw new Error('Nothing was told.');
    return paid;
  };
  const nell = () => [...trivet.state.people.values()].find(({ email }) => email === fields.email);

  it('are refused unless they are genuine and fresh, and change nothing then', async () => {
    const paid = await told();
    const other = [`whsec_${Buffer.alloc(32, 9).toString('base64')}`];
    const [, second] = TEST_KEYS;
    const refused = [
      tell(paid, { keys: other }),
      tell(paid, { at: later(-6) }),
      tell(paid, { at: later(6) }),
      tell(paid, { id: 'another' }),
      siteResponse(
        trivet,
        new Request('http://localhost/shop/notices', { method: 'POST', body: JSON.stringify(paid) }),
        now,
      ),
    ];
    for (const answer of refused) expect((await answer).status).toBe(401);
    expect(nell()).toBeUndefined();
    const long = await tell({}, { body: 'x'.repeat(30_000), id: 'x' });
    expect(long.status).toBe(413);
    // While a key is being changed, the old one is still taken.
    expect((await tell(paid, { keys: [second ?? ''] })).status).toBe(200);
    expect(nell()).toBeDefined();
  });

  it('can be told again, and say the same', async () => {
    const paid = await told();
    expect(await (await tell(paid)).text()).toBe('taken');
    const before = await trivet.state.people.size;
    expect(await (await tell(paid)).text()).toBe('seen');
    expect(trivet.state.people.size).toBe(before);
  });

  it('that are genuine and can’t be read are kept, whatever they are', async () => {
    for (const body of [
      '',
      'nonsense',
      '[]',
      '{"kind":"paid"}',
      '{"kind":"bought","id":"x","order":"y","at":1,"on":"2026-11-20"}',
    ]) {
      const answer = await tell({}, { body, id: `id-${body.length}` });
      expect([body, answer.status, await answer.text()]).toEqual([body, 200, 'kept']);
      expect(await (await tell({}, { body, id: `id-${body.length}` })).text()).toBe('seen');
    }
  });
});

describe('what one has', () => {
  const bought = async () => {
    const { token } = await signedInAt(trivet, 'marek');
    const off = await post('/shop/observer-pass', { price: 'observer-month' }, token);
    const page = off.headers.get('location') ?? '';
    till.pay(page, now);
    await tell(till.told(now)[0] ?? {});
    return { token, page, order: orderOf() };
  };

  it('is listed with receipts, and can be stopped by whoever it is', async () => {
    const { token, order, page } = await bought();
    const own = await (await ask('/me/purchases', token)).text();
    expect(own).toContain('Paid until 19 December 2026, then 12.00 € a month.');
    const receipt = /href="(\/me\/receipt\/[^"]*)"/.exec(own)?.[1] ?? '';
    expect(await (await ask(receipt, token)).text()).toContain('12.00 €');
    const tobin = await signedInAt(trivet, 'tobin');
    expect((await ask(receipt, tobin.token)).status).toBe(404);
    expect((await ask(receipt)).status).toBe(303);
    expect((await post(`/me/purchases/${order}/stop`, {}, tobin.token)).status).toBe(404);
    expect((await post(`/me/purchases/${order}/card`, {}, token)).headers.get('location')).toBe(
      `https://till.example/card/${referenceIn(page)}`,
    );
    expect((await post(`/me/purchases/${order}/stop`, {}, token)).status).toBe(303);
    expect(await (await ask('/me/purchases', token)).text()).toContain(
      'Stopped. It stays yours until 19 December 2026.',
    );
    expect((await post(`/me/purchases/${order}/stop`, {}, token)).status).toBe(422);
  });

  it('is said in the account, with the level that it gives', async () => {
    const { token } = await bought();
    expect(trivet.state.people.get(asId<PersonId>('marek'))?.level).toBeNull();
    expect(await (await ask('/account', token)).text()).toContain('<dd>Observer</dd>');
  });
});
