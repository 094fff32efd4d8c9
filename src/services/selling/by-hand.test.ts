/** Selling and giving at the desk: with everything that buying brings, once, and taken back exactly. */
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { asId, decide, type ItemId, levelAt, type Notice, type ProductId } from '@/core';
import { holdPlace, readOrdersOf, takenPlaces } from '@/store';
import {
  type Administrator,
  byHandPreview,
  endOrder,
  exportSeats,
  latestMail,
  orderReport,
  plainRequest,
  refundOrder,
  saveTerms,
  seatsOf,
  sellByHand,
  shopAtDesk,
  type Trivet,
  takeNotices,
  tendOrders,
} from '..';
import { gretaAt, later, now, openLarkfell } from '../testing';

let trivet: Trivet;
let greta: Administrator;
beforeEach(async () => {
  await trivet?.close();
  trivet = await openLarkfell();
  greta = await gretaAt(trivet);
});
afterAll(() => trivet.close());

const days = (count: number): Date => later(count * 24 * 60);
const person = (email: string) => {
  const found = [...trivet.state.people.values()].find((one) => one.email === email);
  if (!found) throw new Error(`Nobody has ${email}.`);
  return found;
};
const MAREK = 'marek@larkfell.example';
let sales = 0;
const sale = (product: string, more: Record<string, unknown> = {}, email = MAREK) => ({
  person: person(email).id,
  product,
  paid: '',
  currency: 'EUR',
  key: `sale number ${sales++}`,
  ...more,
});
const ordersOf = (email = MAREK) => readOrdersOf(trivet.db, person(email).id);
const opens = (item: string, at = now, email = MAREK): boolean =>
  decide(trivet.state.live.compiled, asId<ItemId>(item), person(email).facts, plainRequest(trivet.state, at))
    .kind === 'open';
const lettersTo = async (to: string) =>
  (await latestMail(trivet, greta)).letters.filter((one) => one.to === to).map(({ subject }) => subject);
const day = (at: Date) => plainRequest(trivet.state, at).today;

describe('what is sold or given at the desk', () => {
  it('says before what it opens, opens exactly that, and stands in the sales', async () => {
    const product = 'observer-pass';
    const before = await byHandPreview(trivet, greta, { person: person(MAREK).id, product }, now);
    expect(before).toMatchObject({
      against: null,
      gets: ['level Observer'],
      closes: [{ id: 'join' }],
      seats: null,
    });
    expect(before?.opens.map(({ id }) => id)).toContain('observers');
    expect(opens('observers')).toBe(false);
    expect(await sellByHand(trivet, greta, sale(product, { paid: '12.00' }), now)).toEqual({
      kind: 'done',
      summary: `Observer pass sold to ${person(MAREK).name} for 12.00 €`,
      order: expect.any(String),
    });
    for (const { id } of before?.opens ?? []) expect(opens(id), id).toBe(true);
    for (const { id } of before?.closes ?? []) expect(opens(id), id).toBe(false);
    const [order] = await ordersOf();
    const report = await orderReport(trivet, null, greta, order?.id ?? '', now);
    expect(report).toMatchObject({
      sale: { standing: 'good', paid: '12.00 €', until: null },
      notedBy: greta.name,
      refundable: '12.00',
      canEnd: true,
      canStop: false,
      ifEnded: { loses: ['level Observer'] },
    });
    expect(await lettersTo(MAREK)).toEqual(['Receipt: Observer pass, 12.00 €']);
  });

  it('ends on its last day by itself, and a letter says so', async () => {
    const until = day(days(10));
    await sellByHand(trivet, greta, sale('observer-pass', { until }), now);
    expect(await lettersTo(MAREK)).toEqual(['Observer pass is yours']);
    expect([opens('observers', days(10)), opens('observers', days(11))]).toEqual([true, false]);
    await tendOrders(trivet, null, days(11));
    expect(await lettersTo(MAREK)).toContain('Observer pass has ended');
  });

  it('goes on from the last day of what they have', async () => {
    const [first, second] = [day(days(10)), day(days(40))];
    await sellByHand(trivet, greta, sale('observer-pass', { until: first, paid: '12' }), now);
    const asked = { person: person(MAREK).id, product: 'observer-pass' };
    expect(await byHandPreview(trivet, greta, { ...asked, until: first }, now)).toMatchObject({
      against: expect.stringMatching(/later last day/),
    });
    expect(await byHandPreview(trivet, greta, { ...asked, until: second }, now)).toMatchObject({
      against: null,
      from: day(days(11)),
      opens: [],
      gets: [],
    });
    const goesOn = sale('observer-pass', { until: second, paid: '12' });
    expect(await sellByHand(trivet, greta, goesOn, later(1))).toMatchObject({ kind: 'done' });
    expect([10, 11, 40, 41].map((at) => opens('observers', days(at)))).toEqual([true, true, true, false]);
    // What is to come is theirs too: the same again begins after it.
    expect(await sellByHand(trivet, greta, sale('observer-pass', { until: second }), now)).toMatchObject({
      kind: 'wrong',
    });
    const [last] = await ordersOf();
    await endOrder(trivet, null, greta, { order: last?.id, when: 'now' }, now);
    expect([10, 11].map((at) => opens('observers', days(at)))).toEqual([true, false]);
  });

  it('is sold once, however often and at once it is sent', async () => {
    const one = sale('observer-pass', { paid: '12' });
    const answers = await Promise.all([1, 2, 3].map(() => sellByHand(trivet, greta, one, now)));
    const [order, ...others] = await ordersOf();
    expect(others).toEqual([]);
    for (const answer of answers) expect(answer).toMatchObject({ kind: 'done', order: order?.id });
    // Another sale of the same is none: they have it.
    expect(await sellByHand(trivet, greta, sale('observer-pass'), now)).toMatchObject({
      kind: 'wrong',
      message: expect.stringMatching(/has Observer pass already, for good/),
    });
    expect(await ordersOf()).toHaveLength(1);
  });

  it('is ended exactly: what was given by hand as well stays', async () => {
    const nothing = levelAt(person(MAREK).facts, day(now), trivet.state.names.levels);
    await sellByHand(trivet, greta, sale('observer-pass', { paid: '12' }), now);
    const [order] = await ordersOf();
    expect(await endOrder(trivet, null, greta, { order: order?.id, when: 'at the end' }, now)).toMatchObject({
      kind: 'wrong',
    });
    for (const again of [1, 2])
      expect(
        await endOrder(trivet, null, greta, { order: order?.id, when: 'now' }, now),
        String(again),
      ).toMatchObject({ kind: 'done' });
    expect(opens('observers')).toBe(false);
    expect(levelAt(person(MAREK).facts, day(now), trivet.state.names.levels)).toBe(nothing);
  });

  it('is given back here, once for each key, and never more than was paid', async () => {
    await sellByHand(trivet, greta, sale('observer-pass', { paid: '12' }), now);
    const [order] = await ordersOf();
    const back = (amount: string, key: string, ends = false) =>
      refundOrder(trivet, null, greta, { order: order?.id, amount, ends, key }, now);
    const twice = await Promise.all([back('5', 'first back'), back('5', 'first back'), back('8', 'another')]);
    expect(twice.map(({ kind }) => kind)).toEqual(['done', 'done', 'wrong']);
    expect(await back('7', 'the rest', true)).toMatchObject({ kind: 'done' });
    expect((await ordersOf())[0]?.state).toMatchObject({ refunded: 1200, endedBy: 'refunded' });
    expect(opens('observers')).toBe(false);
  });

  it('takes a seat, names who has which, and gives it back when it ends', async () => {
    const night = 'comet-night';
    await saveSeats(2);
    await sellByHand(trivet, greta, sale(night, { paid: '9' }), now);
    await holdPlace(trivet.db, night, 2, asId('somebody pays'), later(15), now);
    expect(await byHandPreview(trivet, greta, { person: greta.id, product: night }, now)).toMatchObject({
      seats: { taken: 2, all: 2 },
      against: expect.stringMatching(/Every seat/),
    });
    expect(await sellByHand(trivet, greta, sale(night, {}, greta.email), now)).toMatchObject({
      kind: 'wrong',
      message: expect.stringMatching(/Every seat/),
    });
    // Nothing of what was refused stays.
    expect(await ordersOf(greta.email)).toEqual([]);
    expect(await seatsOf(trivet, greta, night)).toMatchObject([
      { number: 1, name: person(MAREK).name, paid: true },
    ]);
    expect(await exportSeats(trivet, greta, night)).toContain(`1,${person(MAREK).name},${MAREK},yes`);
    const [order] = await ordersOf();
    await endOrder(trivet, null, greta, { order: order?.id, when: 'now' }, now);
    expect(await seatsOf(trivet, greta, night)).toEqual([]);
    expect(await takenPlaces(trivet.db, night)).toBe(1);
  });

  it('of a ticket is told of the day before, once', async () => {
    const night = day(days(5));
    await saveSeats(3, night);
    await sellByHand(trivet, greta, sale('comet-night'), now);
    for (const at of [now, days(4), days(4), days(5)]) await tendOrders(trivet, null, at);
    expect((await lettersTo(MAREK)).filter((one) => one === 'Comet night is tomorrow')).toHaveLength(1);
  });

  it('is refused with a sentence where it can’t be, and writes nothing', async () => {
    const wrong = [
      [{ person: 'nobody' }, /no such person/],
      [{ product: 'nothing' }, /no such person or product/],
      [{ paid: 'twelve' }, /amount like/],
      [{ paid: '-1' }, /amount like/],
      [{ paid: '1000000000000000' }, /more than can be charged/],
      [{ currency: 'STARS' }, /currency/],
      [{ until: '2020-01-01' }, /is over/],
      [{ until: '2026-02-31' }, /./],
      [{ key: '' }, /./],
      [{ extra: true }, /./],
    ] as const;
    for (const [change, message] of wrong)
      expect(await sellByHand(trivet, greta, { ...sale('observer-pass'), ...change }, now)).toEqual({
        kind: 'wrong',
        message: expect.stringMatching(message),
      });
    expect(await ordersOf()).toEqual([]);
    expect(await byHandPreview(trivet, greta, { person: 'nobody', product: 'nothing' }, now)).toBeNull();
  });

  it('holds a notice to what was agreed: until then, and not paid again', async () => {
    const until = day(days(10));
    await sellByHand(trivet, greta, sale('observer-pass', { until }), now);
    const [order] = await ordersOf();
    if (!order) throw new Error('nothing was sold');
    const notice: Notice = {
      kind: 'paid',
      id: 'another end',
      order: order.id,
      at: now.getTime() + 1,
      on: day(now),
      amount: 0,
      currency: 'EUR',
      period: { from: day(now), until: day(days(900)), renews: null, trial: false },
    };
    await takeNotices(trivet, [notice], now);
    expect(opens('observers', days(11))).toBe(false);
    const report = await orderReport(trivet, null, greta, order.id, now);
    expect(report?.notices.map(({ problem }) => problem)).toEqual(['', expect.stringMatching(/agreed was/)]);
  });
});

async function saveSeats(seats: number, on: string | null = null): Promise<void> {
  const product = asId<ProductId>('comet-night');
  const shop = await shopAtDesk(trivet, greta, now);
  const found = shop.products.find((one) => one.product === product);
  if (!found) throw new Error('There is no such product.');
  const terms = { ...found.terms, seats, day: on };
  const answer = await saveTerms(trivet, greta, { product, version: found.version, terms }, false, now);
  if (answer.kind !== 'saved') throw new Error(JSON.stringify(answer));
}
