/** The shop at the desk: what a change of terms, money given back or a removal does is said beforehand, and is what happens. */
import { describe, expect, it } from 'vitest';
import { asId } from '@/core';
import {
  changePeople,
  editNames,
  endOrder,
  exportSales,
  importSite,
  latestChanges,
  leaveToPurchases,
  moveClock,
  orderReport,
  refundOrder,
  saveTerms,
  shopAtDesk,
  siteAsFile,
  undoChange,
} from '..';
import { setClockAhead } from '../running';
import { now, openEmpty } from '../testing';
import { testTill } from '../testing-till';
import { atTheShop, days, marek, nell } from './testing';

const { shop, buy, deliver, guestVisitor, member, only, opens, payPageOf } = atTheShop();

describe('the desk', () => {
  it('reads beforehand what giving money back would close, and that alone closes', async () => {
    const who = await member('jonah');
    shop.till.pay(payPageOf(await buy(who, 'observer-pass', { price: 'observer-month' })), now);
    await deliver(now);
    const jonah = 'jonah@larkfell.example';
    const order = await only(jonah);
    const report = await orderReport(shop.trivet, null, shop.greta, order.id, now);
    expect(report?.ifEnded).toMatchObject({ loses: ['level Observer'], keeps: [] });
    const closes = report?.ifEnded?.closes.map(({ id }) => id) ?? [];
    expect(closes).toContain('observers');
    // Friend by hand stays.
    expect(opens(jonah, 'night-log-1') || closes.length > 0).toBe(true);
    const before = shop.trivet.state.people.get(who.person?.id ?? asId(''));
    for (const amount of ['0', '-1', '12.001', '99', 'all'])
      expect(
        await refundOrder(
          shop.trivet,
          shop.till,
          shop.greta,
          { order: order.id, amount, ends: true, key: 'refund-key-1' },
          now,
        ),
      ).toMatchObject({ kind: 'wrong' });
    const refund = { order: order.id, amount: '12.00', ends: true, key: 'refund-key-1' };
    expect(await refundOrder(shop.trivet, shop.till, shop.greta, refund, now)).toMatchObject({
      kind: 'done',
    });
    expect(await refundOrder(shop.trivet, shop.till, shop.greta, refund, now)).toMatchObject({
      kind: 'wrong',
    });
    await deliver(now);
    for (const item of closes) expect(opens(jonah, item)).toBe(false);
    const after = shop.trivet.state.people.get(who.person?.id ?? asId(''));
    expect(after?.level).toBe(before?.level);
    expect(after?.level).toBe('friend');
    expect((await only(jonah)).state.refunded).toBe(1200);
    expect(await exportSales(shop.trivet, shop.greta, now)).toContain('12.00,12.00,EUR,refunded');
  });

  it('ends a subscription now', async () => {
    shop.till.pay(
      payPageOf(await buy(await member('marek'), 'observer-pass', { price: 'observer-month' })),
      now,
    );
    await deliver(now);
    const { id } = await only(marek);
    expect(
      await endOrder(shop.trivet, shop.till, shop.greta, { order: id, when: 'now' }, days(2)),
    ).toMatchObject({
      kind: 'done',
    });
    expect(opens(marek, 'observers', days(2))).toBe(false);
  });

  it('says what other grants would do, keeps them over the version they are based on, and everything follows', async () => {
    shop.till.pay(
      payPageOf(await buy(await member('marek'), 'observer-pass', { price: 'observer-month' })),
      now,
    );
    await deliver(now);
    const found = (await shopAtDesk(shop.trivet, shop.greta, now)).products.find(
      (one) => one.product === 'observer-pass',
    );
    const edit = {
      product: 'observer-pass',
      version: found?.version,
      terms: { ...found?.terms, grants: { level: null, roles: [], groups: ['dome-crew'], enrolments: [] } },
    };
    const preview = await saveTerms(shop.trivet, shop.greta, edit, true, now);
    expect(preview).toMatchObject({
      kind: 'preview',
      preview: {
        closes: expect.arrayContaining([
          expect.objectContaining({ id: 'observers', first: 'Marek Dunmore' }),
        ]),
        opens: expect.arrayContaining([expect.objectContaining({ id: 'crew' })]),
      },
    });
    expect(opens(marek, 'observers')).toBe(true);
    expect(await saveTerms(shop.trivet, shop.greta, edit, false, now)).toMatchObject({ kind: 'saved' });
    expect([opens(marek, 'observers'), opens(marek, 'crew')]).toEqual([false, true]);
    expect(await saveTerms(shop.trivet, shop.greta, edit, false, now)).toMatchObject({
      kind: 'stale',
      version: (found?.version ?? 0) + 1,
    });
  });

  it('refuses terms that can’t be, next to where they are wrong', async () => {
    const found = (await shopAtDesk(shop.trivet, shop.greta, now)).products.find(
      (one) => one.product === 'observer-pass',
    );
    const price = found?.terms.prices[0];
    const save = (change: object) =>
      saveTerms(
        shop.trivet,
        shop.greta,
        { product: 'observer-pass', version: found?.version, terms: { ...found?.terms, ...change } },
        false,
        now,
      );
    const wrongly = [
      { prices: [{ ...price, amount: 0 }] },
      { prices: [{ ...price, amount: -100 }] },
      { prices: [{ ...price, amount: 1e15 }] },
      { prices: [{ ...price, amount: 1.5 }] },
      { prices: [{ ...price, currency: 'XXQ' }] },
      { prices: [{ ...price, months: null }] },
      { prices: [{ ...price, from: '2026-12-01', until: '2026-11-01' }] },
      { prices: [price, price] },
      { seats: 5 },
      { page: 'nowhere' },
      { grants: { level: 'gone', roles: [], groups: [], enrolments: [] } },
    ];
    for (const change of wrongly) expect([change, (await save(change)).kind]).toEqual([change, 'wrong']);
  });

  it('lists who has twice what they bought, and leaves it to the purchase', async () => {
    const { doubled } = await shopAtDesk(shop.trivet, shop.greta, now);
    expect(doubled.find(({ person }) => person === 'wren')).toMatchObject({ what: ['level Observer'] });
    expect(await leaveToPurchases(shop.trivet, shop.greta, ['wren'], now)).toMatchObject({ kind: 'changed' });
    expect(shop.trivet.state.people.get(asId('wren'))?.level).toBeNull();
    expect(opens('wren@larkfell.example', 'observers')).toBe(true);
    expect(opens('wren@larkfell.example', 'observers', days(300))).toBe(false);
  });

  it('moves the clock of a demo on with the till, and no other', async () => {
    shop.till.pay(
      payPageOf(await buy(await member('marek'), 'observer-pass', { price: 'observer-month' })),
      now,
      'refused next time',
    );
    await deliver(now);
    try {
      expect(await moveClock(shop.trivet, testTill(false), shop.greta, 'a month later', now)).toMatchObject({
        kind: 'wrong',
      });
      expect(await moveClock(shop.trivet, shop.till, shop.greta, 'a year later', now)).toMatchObject({
        kind: 'wrong',
      });
      expect(await moveClock(shop.trivet, shop.till, shop.greta, 'a month later', now)).toEqual({
        kind: 'moved',
        to: '20 December 2026',
      });
      expect(shop.trivet.state.settings.clockAhead).toBe(30 * 86_400);
    } finally {
      setClockAhead(0);
    }
  });
});

it('goes out and comes in with the site as a file', async () => {
  const file = await siteAsFile(shop.trivet, 'people');
  const other = await openEmpty();
  try {
    const people = file.people?.map((person, at) =>
      at === 0 ? { ...person, desk: { right: 'owner' as const, branch: null } } : person,
    );
    expect(
      await importSite(other, JSON.parse(JSON.stringify({ ...file, ...(people && { people }) })), 'A test'),
    ).toEqual([]);
    expect([...other.state.shop].map(([, { terms }]) => terms)).toEqual(
      [...shop.trivet.state.shop].map(([, { terms }]) => terms),
    );
    const wrongly = { ...file, shop: { ...file.shop, products: [{ product: 'gone', prices: [] }] } };
    const third = await openEmpty();
    expect((await importSite(third, JSON.parse(JSON.stringify(wrongly)), 'A test')).join()).toMatch(
      /no product "gone"/,
    );
    await third.close();
  } finally {
    await other.close();
  }
});

it('keeps a product whose buyers have it still, and opens nothing by taking away a level that one gives', async () => {
  shop.till.pay(payPageOf(await buy(await member('marek'), 'keeper-pass', { price: 'keeper-year' })), now);
  await deliver(now);
  const remove = (of: string, id: string) =>
    editNames(shop.trivet, shop.greta, { kind: 'remove', of, id }, true, now);
  expect(await remove('product', 'keeper-pass')).toMatchObject({
    kind: 'wrong',
    message: expect.stringMatching(/^1 person paid for it/),
  });
  // Join us is for those without a level: whoever has one by a purchase alone would be let in.
  expect(opens(marek, 'join')).toBe(false);
  expect(await remove('level', 'keeper')).toMatchObject({
    kind: 'wrong',
    message: expect.stringMatching(/^That would open “Join us” to /),
  });
});

it('lets nobody go who still pays, and takes no account back that was paid for', async () => {
  shop.till.pay(payPageOf(await buy(await guestVisitor(), 'observer-pass', nell)), now);
  await deliver(now);
  const { person } = await only(nell.email);
  const made = (await latestChanges(shop.trivet, shop.greta)).find(({ summary }) =>
    /by buying$/.test(summary),
  );
  expect(await undoChange(shop.trivet, shop.greta, made?.id)).toMatchObject({
    kind: 'wrong',
    message: 'Nell Arden pays for a subscription. End it in Sales first.',
  });
  const remove = () =>
    changePeople(
      shop.trivet,
      shop.greta,
      { who: { ids: [person] }, edit: { kind: 'remove' }, why: '' },
      false,
      now,
    );
  expect(await remove()).toMatchObject({ kind: 'wrong' });
  await endOrder(
    shop.trivet,
    shop.till,
    shop.greta,
    { order: (await only(nell.email)).id, when: 'now' },
    now,
  );
  await deliver(now);
  expect(await remove()).toMatchObject({ kind: 'changed' });
});

it('says that terms are changed back in the shop', async () => {
  const found = (await shopAtDesk(shop.trivet, shop.greta, now)).products.find(
    (one) => one.product === 'winter-atlas',
  );
  const terms = { ...found?.terms, about: 'Another word.' };
  await saveTerms(
    shop.trivet,
    shop.greta,
    { product: 'winter-atlas', version: found?.version, terms },
    false,
    now,
  );
  const [change] = await latestChanges(shop.trivet, shop.greta);
  expect(change).toMatchObject({ summary: 'Winter atlas: its words', undone: false });
  expect(await undoChange(shop.trivet, shop.greta, change?.id)).toMatchObject({ kind: 'wrong' });
});
