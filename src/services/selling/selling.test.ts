/** Selling: paid means in, ended means out; nothing is charged, sold or lost twice, whatever comes when. */
import * as fc from 'fast-check';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { asId, decide, type ItemId, type Notice, nothingYet, type PersonId, type ProductId } from '@/core';
import {
  insertOrder,
  readNotices,
  readOpenOrder,
  readOrder,
  readOrdersOf,
  takenPlaces,
  updateOrder,
  writePeople,
} from '@/store';
import {
  type Administrator,
  changePeople,
  changePlan,
  confirmSignUp,
  editNames,
  endOrder,
  exportSales,
  importSite,
  latestChanges,
  latestMail,
  leaveToPurchases,
  moveClock,
  orderAt,
  orderReport,
  ownPurchases,
  ownReceipt,
  plainRequest,
  refundOrder,
  salesPage,
  saveTerms,
  saveVoucher,
  setOut,
  shopAtDesk,
  siteAsFile,
  startSignUp,
  stopOwn,
  type Trivet,
  tendOrders,
  undoChange,
  type Visitor,
  viewOf,
  visitorOf,
} from '..';
import { applyChange } from '../people';
import { type Person, setClockAhead } from '../running';
import { gretaAt, later, now, openEmpty, openLarkfell, signedInAt } from '../testing';
import { referenceIn, type TestTill, testTill } from '../testing-till';
import { takeNotices } from './take-notice';

let trivet: Trivet;
let greta: Administrator;
let till: TestTill;
beforeEach(async () => {
  await trivet?.close();
  trivet = await openLarkfell();
  greta = await gretaAt(trivet);
  till = testTill();
});
afterAll(() => trivet.close());

const days = (count: number): Date => later(count * 24 * 60);
const contextFor = (visitor: Visitor, at = now) =>
  viewOf({
    state: trivet.state,
    compiled: trivet.state.live.compiled,
    facts: visitor.facts,
    person: visitor.person,
    request: plainRequest(trivet.state, at),
    base: '',
  });
const member = async (name: string): Promise<Visitor> => (await signedInAt(trivet, name)).visitor;
const guestVisitor = async (): Promise<Visitor> => visitorOf(trivet, undefined, now);

let networks = 0;
const buy = (visitor: Visitor, product: string, fields: Record<string, unknown>, at = now) =>
  setOut(
    trivet,
    till,
    { visitor, context: contextFor(visitor, at), from: `10.1.0.${networks++}` },
    product,
    fields,
    at,
  );
const payPageOf = (answer: Awaited<ReturnType<typeof buy>>): string => {
  if (answer.kind !== 'on the way') throw new Error(JSON.stringify(answer));
  return answer.to;
};
/** Hands over everything that the till has told. */
const deliver = async (at: Date, list: readonly Notice[] = till.told(at)) => {
  for (const notice of list) await takeNotices(trivet, [notice], at);
};
const opens = (email: string, item: string, at = now): boolean => {
  const person = [...trivet.state.people.values()].find((one) => one.email === email);
  return (
    person !== undefined &&
    decide(trivet.state.live.compiled, asId<ItemId>(item), person.facts, plainRequest(trivet.state, at))
      .kind === 'open'
  );
};
const nell = { price: 'observer-month', name: 'Nell Arden', email: 'nell@arden.example', next: '/tonight' };
const marek = 'marek@larkfell.example';
const lettersTo = async (to: string) =>
  (await latestMail(trivet, greta)).letters.filter((one) => one.to === to).map(({ subject }) => subject);
const only = async (email: string) => {
  const person = [...trivet.state.people.values()].find((one) => one.email === email);
  const [order] = person ? await readOrdersOf(trivet.db, person.id) : [];
  if (!order) throw new Error('There is no such order.');
  return order;
};

describe('a guest who buys', () => {
  it('has an account, is signed in where they were, and is in at once', async () => {
    const visitor = await guestVisitor();
    const answer = await buy(visitor, 'observer-pass', nell);
    if (answer.kind !== 'on the way') throw new Error(JSON.stringify(answer));
    till.pay(answer.to, later(1));
    const back = await visitorOf(trivet, answer.token ?? '', later(1));
    const order = await readOpenOrder(trivet.db, nell.email, asId<ProductId>('observer-pass'));
    // The notice has not come: the till is asked.
    const told = await orderAt(trivet, till, back, order?.id ?? '', later(1));
    expect(told).toMatchObject({ kind: 'paid', back: '/tonight', started: { next: '/tonight' } });
    expect(opens(nell.email, 'observers')).toBe(true);
    expect(await lettersTo(nell.email)).toEqual(['Receipt: Observer pass, 12.00 €']);
  });

  it('is asked to sign in where the mailbox has an account, and nothing is ordered', async () => {
    const answer = await buy(await guestVisitor(), 'observer-pass', {
      ...nell,
      email: 'Tobin@Larkfell.example ',
    });
    expect(answer).toMatchObject({
      kind: 'wrong',
      problems: { email: expect.stringMatching(/Sign in first/) },
    });
  });

  it('who is not the one who ordered finds nothing there', async () => {
    const answer = await buy(await guestVisitor(), 'observer-pass', nell);
    till.pay(payPageOf(answer), now);
    await deliver(now);
    const order = await only(nell.email);
    for (const other of [await guestVisitor(), await member('marek')])
      expect(await orderAt(trivet, till, other, order.id, now)).toEqual({ kind: 'missing' });
    expect(
      await ownReceipt(trivet, await member('marek'), order.id, order.state.payments[0]?.notice ?? ''),
    ).toBeNull();
  });

  it('is not signed in to an account that was made meanwhile', async () => {
    const answer = await buy(await guestVisitor(), 'observer-pass', nell);
    if (answer.kind !== 'on the way') throw new Error(JSON.stringify(answer));
    const { facts: _, ...record } = trivet.state.people.get(asId('marek')) as Person;
    const made = { ...record, id: asId<PersonId>('meanwhile'), email: nell.email };
    await trivet.change(async () => {
      await writePeople(trivet.db, [{ before: null, after: made }]);
    });
    till.pay(answer.to, now);
    await deliver(now);
    const order = await only(nell.email);
    expect(order).toMatchObject({ person: made.id, madeAccount: false });
    const back = await visitorOf(trivet, answer.token ?? '', now);
    expect(await orderAt(trivet, till, back, order.id, now)).toMatchObject({ kind: 'sign in' });
  });
});

describe('a member who buys', () => {
  it('comes to the same page to pay on however often they set out, and to another for another price', async () => {
    const who = await member('marek');
    const month = { price: 'observer-month' };
    const [one, two] = await Promise.all([
      buy(who, 'observer-pass', month),
      buy(who, 'observer-pass', month),
    ]);
    expect(payPageOf(one)).toBe(payPageOf(two));
    const other = await buy(who, 'observer-pass', { price: 'observer-year' });
    expect(payPageOf(other)).not.toBe(payPageOf(one));
    // The first can't be paid any more, once the till was told.
    await tendOrders(trivet, till, later(1));
    till.pay(payPageOf(one), later(2));
    till.pay(payPageOf(other), later(2));
    await deliver(later(2));
    const person = trivet.state.people.get(who.person?.id ?? asId(''));
    expect(person?.facts.purchases).toHaveLength(1);
  });

  it('is told before they pay: what has changed, what they have, what they can’t have', async () => {
    const who = await member('marek');
    const changed = await buy(who, 'observer-pass', { price: 'observer-month|900 EUR 1 0' });
    expect(changed).toMatchObject({
      problems: { price: 'The price has changed: it is 12.00 € a month now.' },
    });
    expect(await buy(who, 'keeper-pass', { price: 'keeper-school' })).toMatchObject({
      problems: { price: expect.any(String) },
    });
    expect(await buy(await member('sunniva'), 'keeper-pass', { price: 'keeper-school' })).toMatchObject({
      kind: 'on the way',
    });
    expect(await buy(await member('tobin'), 'observer-pass', { price: 'observer-month' })).toMatchObject({
      problems: { form: 'You have Observer pass already.' },
    });
    expect(await buy(who, 'no-such-product', { price: 'x' })).toEqual({ kind: 'missing' });
    for (const fields of [{}, { price: '' }, { price: 'x'.repeat(5000) }, { price: ['a', 'b'] }])
      expect(await buy(who, 'observer-pass', fields)).toMatchObject({ kind: 'wrong' });
  });

  it('who was declined has nothing, and can try again', async () => {
    const who = await member('marek');
    const first = payPageOf(await buy(who, 'observer-pass', { price: 'observer-month', next: '/tonight' }));
    till.decline(first, now);
    await deliver(now);
    const order = await only(marek);
    expect(await orderAt(trivet, till, who, order.id, now)).toMatchObject({
      kind: 'declined',
      order: { price: 'observer-month', back: '/tonight' },
    });
    expect(opens(marek, 'observers')).toBe(false);
    const again = payPageOf(await buy(who, 'observer-pass', { price: 'observer-month' }));
    expect(again).not.toBe(first);
  });

  it('is told that the till does not answer, and nothing is held', async () => {
    till.down = true;
    const who = await member('marek');
    expect(await buy(who, 'comet-night', { price: 'comet-seat' })).toMatchObject({ kind: 'not now' });
    expect(await takenPlaces(trivet.db, 'comet-night')).toBe(0);
  });

  it('who pays for what they have already gets it back', async () => {
    const who = await member('marek');
    const order = payPageOf(await buy(who, 'winter-atlas', { price: 'atlas' }));
    till.pay(order, now);
    await deliver(now);
    // A second order that slipped through: as if two processes had sold to them.
    const first = await only(marek);
    const second = {
      ...first,
      id: asId<typeof first.id>('second'),
      state: { ...first.state, outcome: 'waiting' as const, began: null, payments: [] },
      open: true,
    };
    await insertOrder(trivet.db, second);
    const answer = await till.open(
      {
        order: second.id,
        what: 'Winter atlas',
        email: marek,
        currency: 'EUR',
        first: 1800,
        renewal: null,
        freeDays: 0,
        trial: false,
        returnTo: 'https://larkfell.example/',
        timeZone: 'UTC',
        payUntil: days(1).getTime(),
      },
      now,
    );
    await updateOrder(trivet.db, second.id, { reference: answer.reference });
    till.pay(answer.payPage, now);
    await deliver(now);
    await tendOrders(trivet, till, later(5));
    expect((await readOrder(trivet.db, 'second'))?.state).toMatchObject({
      endedBy: 'refunded',
      refunded: 1800,
    });
    expect(opens(marek, 'atlas-file')).toBe(true);
  });
});

describe('notices', () => {
  const history = async () => {
    const who = await member('marek');
    const page = payPageOf(await buy(who, 'observer-pass', { price: 'observer-month' }));
    till.pay(page, now);
    const told = [...till.told(days(100))];
    const reference = referenceIn(page);
    await till.refund(reference, { key: 'a part', amount: 300, ends: false }, days(101));
    await till.cancel(reference, 'at the end', days(102));
    return [...told, ...till.told(days(103)).slice(told.length)];
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
        await trivet.db.execute(`delete from notices`);
        await updateOrder(trivet.db, order.id, { state: nothingYet, open: true, due: [] });
        await deliver(days(103), [...shuffled, ...shuffled.slice(0, 3)]);
        expect((await readOrder(trivet.db, order.id))?.state).toEqual(wanted);
      }),
      { numRuns: 15 },
    );
  });

  it('that come many at once are each taken once, with one letter each', async () => {
    const who = await member('marek');
    till.pay(payPageOf(await buy(who, 'observer-pass', { price: 'observer-month' })), now);
    const [paid] = till.told(now);
    if (!paid) throw new Error('nothing was told');
    await Promise.all(Array.from({ length: 8 }, () => takeNotices(trivet, [paid], now)));
    expect(await lettersTo(marek)).toHaveLength(1);
    expect(await readNotices(trivet.db, (await only(marek)).id)).toHaveLength(1);
  });

  it('that can’t be matched are kept, shown, and change nothing', async () => {
    const who = await member('marek');
    till.pay(payPageOf(await buy(who, 'observer-pass', { price: 'observer-month' })), now);
    const [paid] = till.told(now);
    if (paid?.kind !== 'paid') throw new Error('nothing was told');
    await takeNotices(trivet, [{ ...paid, id: 'other-amount', amount: 1 }], now);
    await takeNotices(trivet, [{ ...paid, id: 'other-currency', currency: 'JPY' }], now);
    await takeNotices(trivet, [{ ...paid, id: 'stranger', order: asId('nobody') }], now);
    expect(opens(marek, 'observers')).toBe(false);
    const { problems } = await salesPage(trivet, greta, {}, now);
    expect(problems.map(({ id }) => id)).toEqual(['stranger', 'other-currency', 'other-amount']);
    await deliver(now);
    expect(opens(marek, 'observers')).toBe(true);
  });

  it('that are lost are found by asking', async () => {
    const who = await member('marek');
    till.pay(payPageOf(await buy(who, 'observer-pass', { price: 'observer-month' })), now);
    expect(opens(marek, 'observers')).toBe(false);
    await tendOrders(trivet, till, later(3));
    expect(opens(marek, 'observers', later(3))).toBe(true);
    // So is a renewal: whoever paid again stays in, though nobody told it.
    await tendOrders(trivet, till, days(31));
    expect(opens(marek, 'observers', days(45))).toBe(true);
  });
});

describe('a subscription', () => {
  const subscribed = async (card: 'good' | 'refused next time') => {
    const who = await member('marek');
    const page = payPageOf(await buy(who, 'observer-pass', { price: 'observer-month' }));
    till.pay(page, now, card);
    await deliver(now);
    return { who, reference: referenceIn(page) };
  };

  it('goes on as long as it is paid, and ends when grace is over', async () => {
    const { reference } = await subscribed('refused next time');
    await deliver(days(31));
    expect(opens(marek, 'observers', days(31))).toBe(true);
    expect(await lettersTo(marek)).toContain('A payment for Observer pass did not come through');
    till.leaveCard(reference, 'good', days(33));
    await deliver(days(33));
    expect(opens(marek, 'observers', days(50))).toBe(true);
    till.leaveCard(reference, 'refused next time', days(50));
    await deliver(days(70));
    await tendOrders(trivet, till, days(70));
    expect(opens(marek, 'observers', days(70))).toBe(false);
    expect(await lettersTo(marek)).toContain('Observer pass has ended');
    // Whatever is done by itself is done once.
    const before = await lettersTo(marek);
    await tendOrders(trivet, till, days(70));
    expect(await lettersTo(marek)).toEqual(before);
  });

  it('that is stopped stays until the day that is paid for', async () => {
    const { who } = await subscribed('good');
    const order = await only(marek);
    expect(await stopOwn(trivet, till, who, order.id, days(3))).toMatchObject({ kind: 'on the way' });
    expect(opens(marek, 'observers', days(29))).toBe(true);
    expect(opens(marek, 'observers', days(31))).toBe(false);
    expect(await stopOwn(trivet, till, await member('tobin'), order.id, now)).toEqual({ kind: 'missing' });
  });

  it('is closed while it is disputed', async () => {
    const { reference } = await subscribed('good');
    till.dispute(reference, 'open', days(2));
    await deliver(days(2));
    expect(opens(marek, 'observers', days(2))).toBe(false);
    till.dispute(reference, 'won', days(5));
    await deliver(days(5));
    expect(opens(marek, 'observers', days(5))).toBe(true);
  });

  it('can be tried once by a person', async () => {
    const who = await member('marek');
    till.pay(payPageOf(await buy(who, 'keeper-pass', { price: 'keeper-month' })), now);
    await deliver(now);
    expect((await only(marek)).state).toMatchObject({ trialUntil: '2026-12-03', payments: [] });
    const order = await only(marek);
    await till.cancel(order.reference ?? '', 'now', days(2));
    await deliver(days(2));
    await buy(await member('marek'), 'keeper-pass', { price: 'keeper-month' }, days(3));
    expect((await readOpenOrder(trivet.db, marek, asId<ProductId>('keeper-pass')))?.agreed).toMatchObject({
      first: 2500,
      trial: false,
    });
  });

  it('is changed for a dearer plan now with the rest counted in, and the old one ends', async () => {
    const { who } = await subscribed('good');
    const [order] = (
      await ownPurchases(trivet, who.person as never, contextFor(await member('marek'), days(10)), days(10))
    ).orders;
    const plan = order?.plans.find(({ price }) => price === 'keeper-year');
    expect(plan?.sum).toBe(
      'You pay 242.40 € now: 250.00 €, less 7.60 € for the days that are left of your plan.',
    );
    const visitor = await member('marek');
    const context = contextFor(visitor, days(10));
    const stale = await changePlan(
      trivet,
      till,
      { visitor, context },
      order?.id ?? '',
      { ...plan, sum: 'You pay 1.00 € now.' },
      days(10),
    );
    expect(stale).toMatchObject({ kind: 'wrong' });
    const answer = await changePlan(
      trivet,
      till,
      { visitor, context },
      order?.id ?? '',
      { ...plan },
      days(10),
    );
    if (answer.kind !== 'on the way') throw new Error(JSON.stringify(answer));
    till.pay(answer.to, days(10));
    await deliver(days(10));
    await tendOrders(trivet, till, days(10));
    expect(opens(marek, 'observers', days(40))).toBe(true);
    expect((await readOrder(trivet.db, order?.id ?? ''))?.state).toMatchObject({
      endedBy: 'cancelled',
      ends: '2026-11-29',
    });
  });

  it('is changed for a cheaper plan when what is paid for is over', async () => {
    const who = await member('marek');
    till.pay(payPageOf(await buy(who, 'keeper-pass', { price: 'keeper-year' })), now);
    await deliver(now);
    const visitor = await member('marek');
    const context = contextFor(visitor, days(10));
    const [order] = (await ownPurchases(trivet, visitor.person as never, context, days(10))).orders;
    const plan = order?.plans.find(({ price }) => price === 'observer-year');
    expect(plan?.sum).toMatch(/^Nothing is paid now\. You keep what you have until 19 November 2027/);
    const answer = await changePlan(
      trivet,
      till,
      { visitor, context },
      order?.id ?? '',
      { ...plan },
      days(10),
    );
    if (answer.kind !== 'on the way') throw new Error(JSON.stringify(answer));
    till.pay(answer.to, days(10));
    await deliver(days(10));
    await tendOrders(trivet, till, days(10));
    const old = await readOrder(trivet.db, order?.id ?? '');
    expect(old?.state).toMatchObject({ endedBy: 'cancelled', ends: '2027-11-19', renews: null });
    const at = days(370);
    await deliver(at);
    expect(opens(marek, 'observers', at)).toBe(true);
  });
});

describe('what there is a number of', () => {
  it('is never sold twice, however many want the last of it at once', async () => {
    const { product, terms, version } = (await shopAtDesk(trivet, greta, now)).products.find(
      (one) => one.product === 'comet-night',
    ) as never as { product: string; terms: { seats: number; prices: object[] }; version: number };
    expect(
      await saveTerms(trivet, greta, { product, version, terms: { ...terms, seats: 2 } }, false, now),
    ).toMatchObject({ kind: 'saved' });
    const answers = await Promise.all(
      ['ann', 'ben', 'cat', 'dan', 'eve'].map(async (name) =>
        buy(await guestVisitor(), 'comet-night', { price: 'comet-seat', name, email: `${name}@x.example` }),
      ),
    );
    const through = answers.filter(({ kind }) => kind === 'on the way');
    expect(through).toHaveLength(2);
    expect(answers.filter((one) => one.kind === 'wrong')).toHaveLength(3);
    // What is held is free again after a quarter of an hour.
    expect(
      await buy(
        await guestVisitor(),
        'comet-night',
        { price: 'comet-seat', name: 'fay', email: 'fay@x.example' },
        later(16),
      ),
    ).toMatchObject({ kind: 'on the way' });
    // Who pays too late for a seat that went meanwhile gets the money back.
    for (const answer of through) till.pay(payPageOf(answer), later(14));
    await buy(
      await guestVisitor(),
      'comet-night',
      { price: 'comet-seat', name: 'gus', email: 'gus@x.example' },
      later(16),
    );
    await deliver(later(20));
    await tendOrders(trivet, till, later(21));
    const { list } = await salesPage(trivet, greta, { product: 'comet-night' }, later(21));
    const taken = await takenPlaces(trivet.db, 'comet-night');
    expect(taken).toBeLessThanOrEqual(2);
    expect(list.filter(({ standing }) => standing === 'good').length).toBeLessThanOrEqual(2);
    const held = list.filter(({ standing }) => standing === 'refunded');
    expect(held.length + list.filter(({ standing }) => standing === 'good').length).toBe(2);
  });

  it('is used as often as a voucher says, and a guess is counted', async () => {
    const voucher = {
      id: null,
      code: 'hollin-stars',
      products: ['winter-atlas'],
      percent: 100,
      times: 1,
      until: null,
      note: '',
      open: true,
    };
    expect(await saveVoucher(trivet, greta, voucher)).toEqual({ kind: 'saved' });
    expect(await saveVoucher(trivet, greta, voucher)).toMatchObject({
      kind: 'wrong',
      message: expect.stringMatching(/Another/),
    });
    const [one, two] = [await member('marek'), await member('jonah')];
    const fields = { price: 'atlas', voucher: ' Hollin-Stars ' };
    const answers = await Promise.all([buy(one, 'winter-atlas', fields), buy(two, 'winter-atlas', fields)]);
    expect(answers.filter(({ kind }) => kind === 'on the way')).toHaveLength(1);
    expect(
      [opens(marek, 'atlas-file'), opens('jonah@larkfell.example', 'atlas-file')].filter(Boolean),
    ).toHaveLength(1);
    expect(
      await buy(one, 'observer-pass', { price: 'observer-month', voucher: 'HOLLIN-STARS' }),
    ).toMatchObject({ problems: { voucher: expect.any(String) } });
    const guessing = (code: string) =>
      setOut(
        trivet,
        till,
        { visitor: two, context: contextFor(two), from: '10.9.9.9' },
        'astro-course',
        { price: 'course', voucher: code },
        now,
      );
    const guesses = [];
    for (let at = 0; at < 22; at++) guesses.push(await guessing(`GUESS-${at}`));
    expect(guesses.at(-1)).toMatchObject({ kind: 'too many' });
  });
});

describe('the desk', () => {
  it('reads beforehand what giving money back would close, and that alone closes', async () => {
    const who = await member('jonah');
    till.pay(payPageOf(await buy(who, 'observer-pass', { price: 'observer-month' })), now);
    await deliver(now);
    const jonah = 'jonah@larkfell.example';
    const order = await only(jonah);
    const report = await orderReport(trivet, null, greta, order.id, now);
    expect(report?.ifEnded).toMatchObject({ loses: ['level Observer'], keeps: [] });
    const closes = report?.ifEnded?.closes.map(({ id }) => id) ?? [];
    expect(closes).toContain('observers');
    // Friend by hand stays.
    expect(opens(jonah, 'night-log-1') || closes.length > 0).toBe(true);
    const before = trivet.state.people.get(who.person?.id ?? asId(''));
    for (const amount of ['0', '-1', '12.001', '99', 'all'])
      expect(
        await refundOrder(
          trivet,
          till,
          greta,
          { order: order.id, amount, ends: true, key: 'refund-key-1' },
          now,
        ),
      ).toMatchObject({ kind: 'wrong' });
    const refund = { order: order.id, amount: '12.00', ends: true, key: 'refund-key-1' };
    expect(await refundOrder(trivet, till, greta, refund, now)).toMatchObject({ kind: 'done' });
    expect(await refundOrder(trivet, till, greta, refund, now)).toMatchObject({ kind: 'wrong' });
    await deliver(now);
    for (const item of closes) expect(opens(jonah, item)).toBe(false);
    const after = trivet.state.people.get(who.person?.id ?? asId(''));
    expect(after?.level).toBe(before?.level);
    expect(after?.level).toBe('friend');
    expect((await only(jonah)).state.refunded).toBe(1200);
    expect(await exportSales(trivet, greta, now)).toContain('12.00,12.00,EUR,refunded');
  });

  it('ends a subscription now', async () => {
    till.pay(payPageOf(await buy(await member('marek'), 'observer-pass', { price: 'observer-month' })), now);
    await deliver(now);
    const { id } = await only(marek);
    expect(await endOrder(trivet, till, greta, { order: id, when: 'now' }, days(2))).toMatchObject({
      kind: 'done',
    });
    expect(opens(marek, 'observers', days(2))).toBe(false);
  });

  it('says what other grants would do, keeps them over the version they are based on, and everything follows', async () => {
    till.pay(payPageOf(await buy(await member('marek'), 'observer-pass', { price: 'observer-month' })), now);
    await deliver(now);
    const found = (await shopAtDesk(trivet, greta, now)).products.find(
      (one) => one.product === 'observer-pass',
    );
    const edit = {
      product: 'observer-pass',
      version: found?.version,
      terms: { ...found?.terms, grants: { level: null, roles: [], groups: ['dome-crew'], enrolments: [] } },
    };
    const preview = await saveTerms(trivet, greta, edit, true, now);
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
    expect(await saveTerms(trivet, greta, edit, false, now)).toMatchObject({ kind: 'saved' });
    expect([opens(marek, 'observers'), opens(marek, 'crew')]).toEqual([false, true]);
    expect(await saveTerms(trivet, greta, edit, false, now)).toMatchObject({
      kind: 'stale',
      version: (found?.version ?? 0) + 1,
    });
  });

  it('refuses terms that can’t be, next to where they are wrong', async () => {
    const found = (await shopAtDesk(trivet, greta, now)).products.find(
      (one) => one.product === 'observer-pass',
    );
    const price = found?.terms.prices[0];
    const save = (change: object) =>
      saveTerms(
        trivet,
        greta,
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
    const { doubled } = await shopAtDesk(trivet, greta, now);
    expect(doubled.find(({ person }) => person === 'wren')).toMatchObject({ what: ['level Observer'] });
    expect(await leaveToPurchases(trivet, greta, ['wren'], now)).toMatchObject({ kind: 'changed' });
    expect(trivet.state.people.get(asId('wren'))?.level).toBeNull();
    expect(opens('wren@larkfell.example', 'observers')).toBe(true);
    expect(opens('wren@larkfell.example', 'observers', days(300))).toBe(false);
  });

  it('moves the clock of a demo on with the till, and no other', async () => {
    till.pay(
      payPageOf(await buy(await member('marek'), 'observer-pass', { price: 'observer-month' })),
      now,
      'refused next time',
    );
    await deliver(now);
    try {
      expect(await moveClock(trivet, testTill(false), greta, 'a month later', now)).toMatchObject({
        kind: 'wrong',
      });
      expect(await moveClock(trivet, till, greta, 'a year later', now)).toMatchObject({ kind: 'wrong' });
      expect(await moveClock(trivet, till, greta, 'a month later', now)).toEqual({
        kind: 'moved',
        to: '20 December 2026',
      });
      expect(trivet.state.settings.clockAhead).toBe(30 * 86_400);
    } finally {
      setClockAhead(0);
    }
  });
});

it('goes out and comes in with the site as a file', async () => {
  const file = await siteAsFile(trivet, 'people');
  const other = await openEmpty();
  try {
    const people = file.people?.map((person, at) =>
      at === 0 ? { ...person, desk: { right: 'owner' as const, branch: null } } : person,
    );
    expect(
      await importSite(other, JSON.parse(JSON.stringify({ ...file, ...(people && { people }) })), 'A test'),
    ).toEqual([]);
    expect([...other.state.shop].map(([, { terms }]) => terms)).toEqual(
      [...trivet.state.shop].map(([, { terms }]) => terms),
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

it('keeps what is sold from those to whom it is not', async () => {
  const found = (await shopAtDesk(trivet, greta, now)).products.find((one) => one.product === 'winter-atlas');
  await saveTerms(
    trivet,
    greta,
    { product: 'winter-atlas', version: found?.version, terms: { ...found?.terms, page: 'trustees' } },
    false,
    now,
  );
  expect(await buy(await member('marek'), 'winter-atlas', { price: 'atlas' })).toEqual({ kind: 'missing' });
  expect(await buy(await member('priya'), 'winter-atlas', { price: 'atlas' })).toMatchObject({
    kind: 'on the way',
  });
});

it('keeps a product whose buyers have it still, and opens nothing by taking away a level that one gives', async () => {
  till.pay(payPageOf(await buy(await member('marek'), 'keeper-pass', { price: 'keeper-year' })), now);
  await deliver(now);
  const remove = (of: string, id: string) => editNames(trivet, greta, { kind: 'remove', of, id }, true, now);
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

it('does not take a buyer’s word for their mailbox: gates know it once they have shown that it is theirs', async () => {
  const email = 'stranger@hollin.example';
  const answer = await buy(await guestVisitor(), 'observer-pass', { ...nell, email });
  if (answer.kind !== 'on the way') throw new Error(JSON.stringify(answer));
  till.pay(answer.to, now);
  await deliver(now);
  const facts = () => [...trivet.state.people.values()].find((one) => one.email === email)?.facts;
  const order = await only(email);
  const back = await orderAt(trivet, till, await visitorOf(trivet, answer.token ?? '', now), order.id, now);
  const session = back.kind === 'paid' ? (back.started?.token ?? '') : '';
  expect((await visitorOf(trivet, session, now)).person?.email).toBe(email);
  expect(facts()).toMatchObject({ email: null, signedIn: true });
  expect(opens(email, 'observers')).toBe(true);
  await trivet.reload();
  expect(facts()?.email).toBeNull();
  // Whoever has the mailbox signs up with it: the account is theirs, and nobody else's any more.
  const sent = await startSignUp(trivet, { name: 'Real', email, password: 'long enough' }, '10.2.0.1', now);
  if (sent.kind !== 'sent') throw new Error(sent.kind);
  const code = /Your code is (\d{6})/.exec((await latestMail(trivet, greta)).letters[0]?.text ?? '')?.[1];
  const signedUp = await confirmSignUp(
    trivet,
    { token: sent.token, code },
    { from: '10.2.0.1', passphrases: [] },
    now,
  );
  expect(signedUp.kind).toBe('done');
  expect(facts()?.email).toBe(email);
  expect((await visitorOf(trivet, session, now)).person).toBeNull();
});

it('writes what is theirs for nothing, and gives back no more than came in', async () => {
  await saveVoucher(trivet, greta, {
    id: null,
    code: 'FREE-ATLAS',
    products: [],
    percent: 100,
    times: 5,
    until: null,
    note: '',
    open: true,
  });
  await buy(await member('marek'), 'winter-atlas', { price: 'atlas', voucher: 'free-atlas' });
  expect(await lettersTo(marek)).toEqual(['Winter atlas is yours']);
  const [letter] = (await latestMail(trivet, greta)).letters;
  expect(letter?.text).not.toMatch(/NaN|undefined/);
  const page = payPageOf(await buy(await member('jonah'), 'observer-pass', { price: 'observer-month' }));
  till.pay(page, now);
  for (const key of ['one', 'two'])
    await till.refund(referenceIn(page), { key, amount: 1000, ends: false }, now);
  await deliver(now);
  expect((await only('jonah@larkfell.example')).state.refunded).toBe(1000);
});

it('lets nobody go who still pays, and takes no account back that was paid for', async () => {
  till.pay(payPageOf(await buy(await guestVisitor(), 'observer-pass', nell)), now);
  await deliver(now);
  const { person } = await only(nell.email);
  const made = (await latestChanges(trivet, greta)).find(({ summary }) => /by buying$/.test(summary));
  expect(await undoChange(trivet, greta, made?.id)).toMatchObject({
    kind: 'wrong',
    message: 'Nell Arden pays for a subscription. End it in Sales first.',
  });
  const remove = () =>
    changePeople(trivet, greta, { who: { ids: [person] }, edit: { kind: 'remove' }, why: '' }, false, now);
  expect(await remove()).toMatchObject({ kind: 'wrong' });
  await endOrder(trivet, till, greta, { order: (await only(nell.email)).id, when: 'now' }, now);
  await deliver(now);
  expect(await remove()).toMatchObject({ kind: 'changed' });
});

it('says that terms are changed back in the shop', async () => {
  const found = (await shopAtDesk(trivet, greta, now)).products.find((one) => one.product === 'winter-atlas');
  const terms = { ...found?.terms, about: 'Another word.' };
  await saveTerms(trivet, greta, { product: 'winter-atlas', version: found?.version, terms }, false, now);
  const [change] = await latestChanges(trivet, greta);
  expect(change).toMatchObject({ summary: 'Winter atlas: its words', undone: false });
  expect(await undoChange(trivet, greta, change?.id)).toMatchObject({ kind: 'wrong' });
});

it('signs nobody in by an order once whoever has the mailbox took the account', async () => {
  const email = 'stranger@hollin.example';
  const answer = await buy(await guestVisitor(), 'observer-pass', { ...nell, email });
  if (answer.kind !== 'on the way') throw new Error(JSON.stringify(answer));
  till.pay(answer.to, now);
  await deliver(now);
  const order = await only(email);
  await applyChange(
    trivet,
    { name: 'Real' },
    () => ({
      summary: 'Real signed up',
      people: [],
      names: null,
      password: { person: order.person ?? asId<PersonId>(''), hash: 'a hash' },
    }),
    now,
  );
  const back = await visitorOf(trivet, answer.token ?? '', now);
  expect(await orderAt(trivet, till, back, order.id, now)).toMatchObject({ kind: 'sign in' });
});
