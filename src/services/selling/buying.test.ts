/** Buying: whoever paid is in, at once and alone; nothing is sold twice, and nobody is signed in to what is another’s. */
import { describe, expect, it } from 'vitest';
import { asId, type PersonId, type ProductId } from '@/core';
import { insertOrder, readOpenOrder, readOrder, takenPlaces, updateOrder, writePeople } from '@/store';
import {
  confirmSignUp,
  latestMail,
  orderAt,
  ownReceipt,
  salesPage,
  saveTerms,
  saveVoucher,
  setOut,
  shopAtDesk,
  startSignUp,
  tendOrders,
  visitorOf,
} from '..';
import { applyChange } from '../people';
import type { Person } from '../running';
import { later, now } from '../testing';
import { referenceIn } from '../testing-till';
import { atTheShop, days, marek, nell } from './testing';

const { shop, buy, contextFor, deliver, guestVisitor, lettersTo, member, only, opens, payPageOf } =
  atTheShop();

describe('a guest who buys', () => {
  it('has an account, is signed in where they were, and is in at once', async () => {
    const visitor = await guestVisitor();
    const answer = await buy(visitor, 'observer-pass', nell);
    if (answer.kind !== 'on the way') throw new Error(JSON.stringify(answer));
    shop.till.pay(answer.to, later(1));
    const back = await visitorOf(shop.trivet, answer.token ?? '', later(1));
    const order = await readOpenOrder(shop.trivet.db, nell.email, asId<ProductId>('observer-pass'));
    // The notice has not come: the till is asked.
    const told = await orderAt(shop.trivet, shop.till, back, order?.id ?? '', later(1));
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
    shop.till.pay(payPageOf(answer), now);
    await deliver(now);
    const order = await only(nell.email);
    for (const other of [await guestVisitor(), await member('marek')])
      expect(await orderAt(shop.trivet, shop.till, other, order.id, now)).toEqual({ kind: 'missing' });
    expect(
      await ownReceipt(shop.trivet, await member('marek'), order.id, order.state.payments[0]?.notice ?? ''),
    ).toBeNull();
  });

  it('is not signed in to an account that was made meanwhile', async () => {
    const answer = await buy(await guestVisitor(), 'observer-pass', nell);
    if (answer.kind !== 'on the way') throw new Error(JSON.stringify(answer));
    const { facts: _, ...record } = shop.trivet.state.people.get(asId('marek')) as Person;
    const made = { ...record, id: asId<PersonId>('meanwhile'), email: nell.email };
    await shop.trivet.change(async () => {
      await writePeople(shop.trivet.db, [{ before: null, after: made }]);
    });
    shop.till.pay(answer.to, now);
    await deliver(now);
    const order = await only(nell.email);
    expect(order).toMatchObject({ person: made.id, madeAccount: false });
    const back = await visitorOf(shop.trivet, answer.token ?? '', now);
    expect(await orderAt(shop.trivet, shop.till, back, order.id, now)).toMatchObject({ kind: 'sign in' });
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
    await tendOrders(shop.trivet, shop.till, later(1));
    shop.till.pay(payPageOf(one), later(2));
    shop.till.pay(payPageOf(other), later(2));
    await deliver(later(2));
    const person = shop.trivet.state.people.get(who.person?.id ?? asId(''));
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
    shop.till.decline(first, now);
    await deliver(now);
    const order = await only(marek);
    expect(await orderAt(shop.trivet, shop.till, who, order.id, now)).toMatchObject({
      kind: 'declined',
      order: { price: 'observer-month', back: '/tonight' },
    });
    expect(opens(marek, 'observers')).toBe(false);
    const again = payPageOf(await buy(who, 'observer-pass', { price: 'observer-month' }));
    expect(again).not.toBe(first);
  });

  it('is told that the till does not answer, and nothing is held', async () => {
    shop.till.down = true;
    const who = await member('marek');
    expect(await buy(who, 'comet-night', { price: 'comet-seat' })).toMatchObject({ kind: 'not now' });
    expect(await takenPlaces(shop.trivet.db, 'comet-night')).toBe(0);
  });

  it('who pays for what they have already gets it back', async () => {
    const who = await member('marek');
    const order = payPageOf(await buy(who, 'winter-atlas', { price: 'atlas' }));
    shop.till.pay(order, now);
    await deliver(now);
    // A second order that slipped through: as if two processes had sold to them.
    const first = await only(marek);
    const second = {
      ...first,
      id: asId<typeof first.id>('second'),
      state: { ...first.state, outcome: 'waiting' as const, began: null, payments: [] },
      open: true,
    };
    await insertOrder(shop.trivet.db, second);
    const answer = await shop.till.open(
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
    await updateOrder(shop.trivet.db, second.id, { reference: answer.reference });
    shop.till.pay(answer.payPage, now);
    await deliver(now);
    await tendOrders(shop.trivet, shop.till, later(5));
    expect((await readOrder(shop.trivet.db, 'second'))?.state).toMatchObject({
      endedBy: 'refunded',
      refunded: 1800,
    });
    expect(opens(marek, 'atlas-file')).toBe(true);
  });
});

describe('what there is a number of', () => {
  it('is never sold twice, however many want the last of it at once', async () => {
    const { product, terms, version } = (await shopAtDesk(shop.trivet, shop.greta, now)).products.find(
      (one) => one.product === 'comet-night',
    ) as never as { product: string; terms: { seats: number; prices: object[] }; version: number };
    expect(
      await saveTerms(
        shop.trivet,
        shop.greta,
        { product, version, terms: { ...terms, seats: 2 } },
        false,
        now,
      ),
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
    for (const answer of through) shop.till.pay(payPageOf(answer), later(14));
    await buy(
      await guestVisitor(),
      'comet-night',
      { price: 'comet-seat', name: 'gus', email: 'gus@x.example' },
      later(16),
    );
    await deliver(later(20));
    await tendOrders(shop.trivet, shop.till, later(21));
    const { list } = await salesPage(shop.trivet, shop.greta, { product: 'comet-night' }, later(21));
    const taken = await takenPlaces(shop.trivet.db, 'comet-night');
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
    expect(await saveVoucher(shop.trivet, shop.greta, voucher)).toEqual({ kind: 'saved' });
    expect(await saveVoucher(shop.trivet, shop.greta, voucher)).toMatchObject({
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
        shop.trivet,
        shop.till,
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

it('keeps what is sold from those to whom it is not', async () => {
  const found = (await shopAtDesk(shop.trivet, shop.greta, now)).products.find(
    (one) => one.product === 'winter-atlas',
  );
  await saveTerms(
    shop.trivet,
    shop.greta,
    { product: 'winter-atlas', version: found?.version, terms: { ...found?.terms, page: 'trustees' } },
    false,
    now,
  );
  expect(await buy(await member('marek'), 'winter-atlas', { price: 'atlas' })).toEqual({ kind: 'missing' });
  expect(await buy(await member('priya'), 'winter-atlas', { price: 'atlas' })).toMatchObject({
    kind: 'on the way',
  });
});

it('does not take a buyer’s word for their mailbox: gates know it once they have shown that it is theirs', async () => {
  const email = 'stranger@hollin.example';
  const answer = await buy(await guestVisitor(), 'observer-pass', { ...nell, email });
  if (answer.kind !== 'on the way') throw new Error(JSON.stringify(answer));
  shop.till.pay(answer.to, now);
  await deliver(now);
  const facts = () => [...shop.trivet.state.people.values()].find((one) => one.email === email)?.facts;
  const order = await only(email);
  const back = await orderAt(
    shop.trivet,
    shop.till,
    await visitorOf(shop.trivet, answer.token ?? '', now),
    order.id,
    now,
  );
  const session = back.kind === 'paid' ? (back.started?.token ?? '') : '';
  expect((await visitorOf(shop.trivet, session, now)).person?.email).toBe(email);
  expect(facts()).toMatchObject({ email: null, signedIn: true });
  expect(opens(email, 'observers')).toBe(true);
  await shop.trivet.reload();
  expect(facts()?.email).toBeNull();
  // Whoever has the mailbox signs up with it: the account is theirs, and nobody else's any more.
  const sent = await startSignUp(
    shop.trivet,
    { name: 'Real', email, password: 'long enough' },
    '10.2.0.1',
    now,
  );
  if (sent.kind !== 'sent') throw new Error(sent.kind);
  const code = /Your code is (\d{6})/.exec(
    (await latestMail(shop.trivet, shop.greta)).letters[0]?.text ?? '',
  )?.[1];
  const signedUp = await confirmSignUp(
    shop.trivet,
    { token: sent.token, code },
    { from: '10.2.0.1', passphrases: [] },
    now,
  );
  expect(signedUp.kind).toBe('done');
  expect(facts()?.email).toBe(email);
  expect((await visitorOf(shop.trivet, session, now)).person).toBeNull();
});

it('writes what is theirs for nothing, and gives back no more than came in', async () => {
  await saveVoucher(shop.trivet, shop.greta, {
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
  const [letter] = (await latestMail(shop.trivet, shop.greta)).letters;
  expect(letter?.text).not.toMatch(/NaN|undefined/);
  const page = payPageOf(await buy(await member('jonah'), 'observer-pass', { price: 'observer-month' }));
  shop.till.pay(page, now);
  for (const key of ['one', 'two'])
    await shop.till.refund(referenceIn(page), { key, amount: 1000, ends: false }, now);
  await deliver(now);
  expect((await only('jonah@larkfell.example')).state.refunded).toBe(1000);
});

it('signs nobody in by an order once whoever has the mailbox took the account', async () => {
  const email = 'stranger@hollin.example';
  const answer = await buy(await guestVisitor(), 'observer-pass', { ...nell, email });
  if (answer.kind !== 'on the way') throw new Error(JSON.stringify(answer));
  shop.till.pay(answer.to, now);
  await deliver(now);
  const order = await only(email);
  await applyChange(
    shop.trivet,
    { name: 'Real' },
    () => ({
      summary: 'Real signed up',
      people: [],
      names: null,
      password: { person: order.person ?? asId<PersonId>(''), hash: 'a hash' },
    }),
    now,
  );
  const back = await visitorOf(shop.trivet, answer.token ?? '', now);
  expect(await orderAt(shop.trivet, shop.till, back, order.id, now)).toMatchObject({ kind: 'sign in' });
});
