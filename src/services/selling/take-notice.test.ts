/** What the till tells: each notice is taken once, and they come to the same in any order. */
import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { asId, nothingYet } from '@/core';
import { readNotices, readOrder, updateOrder } from '@/store';
import { salesPage, tendOrders } from '..';
import { later, now } from '../testing';
import { referenceIn } from '../testing-till';
import { takeNotices } from './take-notice';
import { atTheShop, days, marek } from './testing';

const { shop, buy, deliver, lettersTo, member, only, opens, payPageOf } = atTheShop();

describe('notices', () => {
  const history = async () => {
    const who = await member('marek');
    const page = payPageOf(await buy(who, 'observer-pass', { price: 'observer-month' }));
    shop.till.pay(page, now);
    const told = [...shop.till.told(days(100))];
    const reference = referenceIn(page);
    await shop.till.refund(reference, { key: 'a part', amount: 300, ends: false }, days(101));
    await shop.till.cancel(reference, 'at the end', days(102));
    return [...told, ...shop.till.told(days(103)).slice(told.length)];
  };

  it('come to the same in any order, twice and one by one, as they do in their own', async () => {
    const list = await history();
    await deliver(days(103), list);
    const wanted = (await only(marek)).state;
    expect(wanted.payments.length).toBeGreaterThan(2);
    expect(wanted).toMatchObject({ endedBy: 'cancelled', refunded: 300 });
    const order = await only(marek);
    await fc.assert(
      fc.asyncProperty(fc.shuffledSubarray(list, { minLength: list.length }), async (shuffled) => {
        await shop.trivet.db.execute(`delete from notices`);
        await updateOrder(shop.trivet.db, order.id, { state: nothingYet, open: true, due: [] });
        await deliver(days(103), [...shuffled, ...shuffled.slice(0, 3)]);
        expect((await readOrder(shop.trivet.db, order.id))?.state).toEqual(wanted);
      }),
      { numRuns: 15 },
    );
  });

  it('that come many at once are each taken once, with one letter each', async () => {
    const who = await member('marek');
    shop.till.pay(payPageOf(await buy(who, 'observer-pass', { price: 'observer-month' })), now);
    const [paid] = shop.till.told(now);
    if (!paid) throw new Error('nothing was told');
    await Promise.all(Array.from({ length: 8 }, () => takeNotices(shop.trivet, [paid], now)));
    expect(await lettersTo(marek)).toHaveLength(1);
    expect(await readNotices(shop.trivet.db, (await only(marek)).id)).toHaveLength(1);
  });

  it('that can’t be matched are kept, shown, and change nothing', async () => {
    const who = await member('marek');
    shop.till.pay(payPageOf(await buy(who, 'observer-pass', { price: 'observer-month' })), now);
    const [paid] = shop.till.told(now);
    if (paid?.kind !== 'paid') throw new Error('nothing was told');
    await takeNotices(shop.trivet, [{ ...paid, id: 'other-amount', amount: 1 }], now);
    await takeNotices(shop.trivet, [{ ...paid, id: 'other-currency', currency: 'JPY' }], now);
    await takeNotices(shop.trivet, [{ ...paid, id: 'stranger', order: asId('nobody') }], now);
    expect(opens(marek, 'observers')).toBe(false);
    const { problems } = await salesPage(shop.trivet, shop.greta, {}, now);
    expect(problems.map(({ id }) => id)).toEqual(['stranger', 'other-currency', 'other-amount']);
    await deliver(now);
    expect(opens(marek, 'observers')).toBe(true);
  });

  it('that are lost are found by asking', async () => {
    const who = await member('marek');
    shop.till.pay(payPageOf(await buy(who, 'observer-pass', { price: 'observer-month' })), now);
    expect(opens(marek, 'observers')).toBe(false);
    await tendOrders(shop.trivet, shop.till, later(3));
    expect(opens(marek, 'observers', later(3))).toBe(true);
    // So is a renewal: whoever paid again stays in, though nobody told it.
    await tendOrders(shop.trivet, shop.till, days(31));
    expect(opens(marek, 'observers', days(45))).toBe(true);
  });
});
