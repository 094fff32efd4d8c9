/** Subscriptions: in for as long as they are paid, out when grace is over, and changed for another plan. */
import { describe, expect, it } from 'vitest';
import { asId, type ProductId } from '@/core';
import { readOpenOrder, readOrder } from '@/store';
import { changePlan, ownPurchases, stopOwn, tendOrders } from '..';
import { now } from '../testing';
import { referenceIn } from '../testing-till';
import { atTheShop, days, marek } from './testing';

const { shop, buy, contextFor, deliver, lettersTo, member, only, opens, payPageOf } = atTheShop();

describe('a subscription', () => {
  const subscribed = async (card: 'good' | 'refused next time') => {
    const who = await member('marek');
    const page = payPageOf(await buy(who, 'observer-pass', { price: 'observer-month' }));
    shop.till.pay(page, now, card);
    await deliver(now);
    return { who, reference: referenceIn(page) };
  };

  /** Another plan is agreed to and paid for, on the tenth day. */
  const changes = async (
    who: Parameters<typeof changePlan>[2],
    order: string,
    plan: Readonly<Record<string, unknown>>,
  ) => {
    const answer = await changePlan(shop.trivet, shop.till, who, order, plan, days(10));
    if (answer.kind !== 'on the way') throw new Error(JSON.stringify(answer));
    shop.till.pay(answer.to, days(10));
    await deliver(days(10));
    await tendOrders(shop.trivet, shop.till, days(10));
  };

  it('goes on as long as it is paid, and ends when grace is over', async () => {
    const { reference } = await subscribed('refused next time');
    await deliver(days(31));
    expect(opens(marek, 'observers', days(31))).toBe(true);
    expect(await lettersTo(marek)).toContain('A payment for Observer pass did not come through');
    shop.till.leaveCard(reference, 'good', days(33));
    await deliver(days(33));
    expect(opens(marek, 'observers', days(50))).toBe(true);
    shop.till.leaveCard(reference, 'refused next time', days(50));
    await deliver(days(70));
    await tendOrders(shop.trivet, shop.till, days(70));
    expect(opens(marek, 'observers', days(70))).toBe(false);
    expect(await lettersTo(marek)).toContain('Observer pass has ended');
    // Whatever is done by itself is done once.
    const before = await lettersTo(marek);
    await tendOrders(shop.trivet, shop.till, days(70));
    expect(await lettersTo(marek)).toEqual(before);
  });

  it('that is stopped stays until the day that is paid for', async () => {
    const { who } = await subscribed('good');
    const order = await only(marek);
    expect(await stopOwn(shop.trivet, shop.till, who, order.id, days(3))).toMatchObject({
      kind: 'on the way',
    });
    expect(opens(marek, 'observers', days(29))).toBe(true);
    expect(opens(marek, 'observers', days(31))).toBe(false);
    expect(await stopOwn(shop.trivet, shop.till, await member('tobin'), order.id, now)).toEqual({
      kind: 'missing',
    });
  });

  it('is closed while it is disputed', async () => {
    const { reference } = await subscribed('good');
    shop.till.dispute(reference, 'open', days(2));
    await deliver(days(2));
    expect(opens(marek, 'observers', days(2))).toBe(false);
    shop.till.dispute(reference, 'won', days(5));
    await deliver(days(5));
    expect(opens(marek, 'observers', days(5))).toBe(true);
  });

  it('can be tried once by a person', async () => {
    const who = await member('marek');
    shop.till.pay(payPageOf(await buy(who, 'keeper-pass', { price: 'keeper-month' })), now);
    await deliver(now);
    expect((await only(marek)).state).toMatchObject({ trialUntil: '2026-12-03', payments: [] });
    const order = await only(marek);
    await shop.till.cancel(order.reference ?? '', 'now', days(2));
    await deliver(days(2));
    await buy(await member('marek'), 'keeper-pass', { price: 'keeper-month' }, days(3));
    expect(
      (await readOpenOrder(shop.trivet.db, marek, asId<ProductId>('keeper-pass')))?.agreed,
    ).toMatchObject({
      first: 2500,
      trial: false,
    });
  });

  it('is changed for a dearer plan now with the rest counted in, and the old one ends', async () => {
    const { who } = await subscribed('good');
    const [order] = (
      await ownPurchases(
        shop.trivet,
        who.person as never,
        contextFor(await member('marek'), days(10)),
        days(10),
      )
    ).orders;
    const plan = order?.plans.find(({ price }) => price === 'keeper-year');
    expect(plan?.sum).toBe(
      'You pay 242.40 € now: 250.00 €, less 7.60 € for the days that are left of your plan.',
    );
    const visitor = await member('marek');
    const context = contextFor(visitor, days(10));
    const stale = await changePlan(
      shop.trivet,
      shop.till,
      { visitor, context },
      order?.id ?? '',
      { ...plan, sum: 'You pay 1.00 € now.' },
      days(10),
    );
    expect(stale).toMatchObject({ kind: 'wrong' });
    await changes({ visitor, context }, order?.id ?? '', { ...plan });
    expect(opens(marek, 'observers', days(40))).toBe(true);
    expect((await readOrder(shop.trivet.db, order?.id ?? ''))?.state).toMatchObject({
      endedBy: 'cancelled',
      ends: '2026-11-29',
    });
  });

  it('is changed for a cheaper plan when what is paid for is over', async () => {
    const who = await member('marek');
    shop.till.pay(payPageOf(await buy(who, 'keeper-pass', { price: 'keeper-year' })), now);
    await deliver(now);
    const visitor = await member('marek');
    const context = contextFor(visitor, days(10));
    const [order] = (await ownPurchases(shop.trivet, visitor.person as never, context, days(10))).orders;
    const plan = order?.plans.find(({ price }) => price === 'observer-year');
    expect(plan?.sum).toMatch(/^Nothing is paid now\. You keep what you have until 19 November 2027/);
    await changes({ visitor, context }, order?.id ?? '', { ...plan });
    const old = await readOrder(shop.trivet.db, order?.id ?? '');
    expect(old?.state).toMatchObject({ endedBy: 'cancelled', ends: '2027-11-19', renews: null });
    const at = days(370);
    await deliver(at);
    expect(opens(marek, 'observers', at)).toBe(true);
  });
});
