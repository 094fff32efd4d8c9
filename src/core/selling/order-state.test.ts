/** What has become of an order, for any notices in any order, and by example. */
import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { asId, type OrderId, type ProductId } from '../ids';
import { addDays } from '../site/day';
import { NOTICE_KINDS, type Notice, type PaidPeriod } from './notice';
import { type Agreed, misfitOf, nothingYet, orderStateOf } from './order-state';
import { lastDayOf, purchaseOf } from './purchase-of';

const order = asId<OrderId>('order');
const pass = asId<ProductId>('observer-pass');
const agreed: Agreed = { currency: 'EUR', amount: 1200, months: 1, first: 1200 };
const dayOf = (at: number) => addDays('2026-01-01', at);

type Partial_<T> = T extends unknown ? Omit<T, 'id' | 'order' | 'at' | 'on'> : never;
let count = 0;
const notice = (day: number, told: Partial_<Notice>, id = `n${++count}`): Notice =>
  ({ id, order, at: day * 1000, on: dayOf(day), ...told }) as Notice;
const period = (from: number, until: number): PaidPeriod => ({
  from: dayOf(from),
  until: dayOf(until),
  renews: dayOf(until + 1),
  trial: false,
});
const money = { amount: 1200, currency: 'EUR' };
const paid = (day: number) => notice(day, { kind: 'paid', ...money, period: period(day, day + 29) });
const renewed = (day: number) => notice(day, { kind: 'renewed', ...money, period: period(day, day + 29) });

/** Notices of every kind, some about other amounts, some told twice at the same moment. */
const anyNotice: fc.Arbitrary<Notice> = fc
  .record({
    kind: fc.constantFrom(...NOTICE_KINDS),
    day: fc.integer({ min: 0, max: 120 }),
    id: fc.integer({ min: 0, max: 30 }),
    amount: fc.constantFrom(1200, 1200, 1200, 900),
    currency: fc.constantFrom('EUR', 'EUR', 'EUR', 'JPY'),
    trial: fc.boolean(),
    ends: fc.boolean(),
    outcome: fc.constantFrom('open' as const, 'won' as const, 'lost' as const),
    whole: fc.boolean(),
  })
  .map(({ kind, day, id, amount, currency, trial, ends, outcome, whole }): Notice => {
    const base = { id: `n${id}`, order, at: Math.floor(day / 3), on: dayOf(day) };
    switch (kind) {
      case 'paid':
      case 'renewed':
        return {
          ...base,
          kind,
          amount,
          currency,
          period: whole ? { ...period(day, day + 29), trial } : null,
        };
      case 'refunded':
        return { ...base, kind, amount, currency, ends };
      case 'disputed':
        return { ...base, kind, outcome };
      case 'cancelled':
        return { ...base, kind, until: dayOf(day + 10) };
      default:
        return { ...base, kind };
    }
  });

/** As a till tells: each id means one notice. */
const history = fc.uniqueArray(anyNotice, { selector: ({ id }) => id, maxLength: 12 });

describe('for any notices', () => {
  it('comes to the same in any order and however often each is told', () => {
    fc.assert(
      fc.property(
        history.chain((list) =>
          fc.tuple(
            fc.constant(list),
            fc.shuffledSubarray(list, { minLength: list.length }),
            fc.array(fc.constantFrom(...(list.length === 0 ? [paid(0)] : list))),
          ),
        ),
        ([list, other, again]) => {
          const twice = list.length === 0 ? other : [...other, ...again, ...other];
          expect(orderStateOf(agreed, twice)).toEqual(orderStateOf(agreed, list));
        },
      ),
    );
  });

  it('is changed by nothing that does not fit what was agreed', () => {
    fc.assert(
      fc.property(history, (list) => {
        const fitting = list.filter((one) => misfitOf(one, agreed) === null);
        expect(orderStateOf(agreed, list)).toEqual(orderStateOf(agreed, fitting));
      }),
    );
  });

  it('gives nothing that was not paid for, and nothing after it was ended', () => {
    fc.assert(
      fc.property(history, fc.integer({ min: 0, max: 20 }), (list, graceDays) => {
        const state = orderStateOf(agreed, list);
        const told = list.filter((one) => misfitOf(one, agreed) === null);
        const payments = told.filter(({ kind }) => kind === 'paid' || kind === 'renewed');
        const purchase = purchaseOf({ id: order, product: pass, voucher: false }, state, graceDays);
        expect(purchase === null).toBe(payments.length === 0);
        const last = payments
          .flatMap((one) => ('period' in one && one.period ? [one.period.until] : []))
          .toSorted()
          .at(-1);
        if (purchase) expect(last).toBeDefined();
        if (purchase && last) expect((purchase.until ?? '9999') <= addDays(last, graceDays)).toBe(true);
        if (purchase && state.ends) expect((purchase.until ?? '9999') <= state.ends).toBe(true);
      }),
    );
  });
});

describe('a subscription', () => {
  const first = paid(0);
  const state = (...more: readonly Notice[]) => orderStateOf(agreed, [first, ...more]);

  it('is good until the day that is paid for, and for the days of grace while its renewal is awaited', () => {
    expect(orderStateOf(agreed, [])).toEqual(nothingYet);
    expect(state()).toMatchObject({
      outcome: 'paid',
      began: dayOf(0),
      paidUntil: dayOf(29),
      renews: dayOf(30),
    });
    expect(lastDayOf(state(), 7)).toBe(dayOf(36));
  });

  it('is not good for good by a renewal that says no period, whenever that is told', () => {
    const endless = notice(0, { kind: 'renewed', ...money, period: null });
    expect(misfitOf(endless, agreed)).toBe('It says no period.');
    expect(orderStateOf(agreed, [endless])).toEqual(nothingYet);
    expect(orderStateOf(agreed, [endless, paid(1)])).toMatchObject({ paidUntil: dayOf(30) });
  });

  it('goes on when it is renewed, also if that is told before the payment, or the payment never', () => {
    const next = renewed(30);
    expect(state(next)).toMatchObject({ paidUntil: dayOf(59), failing: null });
    expect(orderStateOf(agreed, [next, first])).toEqual(state(next));
    expect(orderStateOf(agreed, [next])).toMatchObject({ outcome: 'paid', began: dayOf(30) });
  });

  it('is failing since the first time, until it is paid again', () => {
    const [one, two] = [notice(30, { kind: 'failed' }), notice(32, { kind: 'failed' })];
    expect(state(one, two).failing).toBe(dayOf(30));
    expect(state(one, two, renewed(34)).failing).toBeNull();
  });

  it('stays until the day that is paid for when it is stopped, without any grace', () => {
    const stopped = state(notice(10, { kind: 'cancelled', until: dayOf(29) }));
    expect(stopped).toMatchObject({ ends: dayOf(29), endedBy: 'cancelled', renews: null });
    expect(lastDayOf(stopped, 7)).toBe(dayOf(29));
  });

  it('ends the day before it is given back with an end, and goes on when it is not', () => {
    const back = (ends: boolean) => notice(10, { kind: 'refunded', amount: 500, currency: 'EUR', ends });
    expect(state(back(true))).toMatchObject({ refunded: 500, ends: dayOf(9), endedBy: 'refunded' });
    expect(state(back(false))).toMatchObject({ refunded: 500, ends: null, endedBy: null });
  });

  it('is closed while it is disputed, and open again once that is won', () => {
    const disputed = (day: number, outcome: 'open' | 'won' | 'lost') =>
      notice(day, { kind: 'disputed', outcome });
    expect(state(disputed(5, 'open'))).toMatchObject({ endedBy: 'disputed', ends: dayOf(4) });
    expect(state(disputed(5, 'open'), disputed(9, 'won'))).toMatchObject({ endedBy: null, ends: null });
    expect(state(disputed(5, 'open'), disputed(9, 'lost')).endedBy).toBe('disputed');
  });

  it('notes what was paid twice, and is no longer for it', () => {
    const twice = state(paid(1));
    expect(twice.payments.map((payment) => payment.twice)).toEqual([false, true]);
    expect(twice.paidUntil).toBe(dayOf(29));
  });

  it('is nobody’s when it was declined, and is theirs when it is paid after all', () => {
    const failed = notice(0, { kind: 'failed' });
    expect(orderStateOf(agreed, [failed])).toMatchObject({ outcome: 'declined', began: null });
    expect(orderStateOf(agreed, [failed, paid(1)])).toMatchObject({ outcome: 'paid', began: dayOf(1) });
    expect(orderStateOf(agreed, [notice(1, { kind: 'expired' })]).outcome).toBe('expired');
    expect(state(notice(1, { kind: 'expired' })).outcome).toBe('paid');
  });
});

it('finds what does not fit: another amount, another currency, a period for what has none', () => {
  const once: Agreed = { ...agreed, months: null };
  expect(misfitOf(paid(0), agreed)).toBeNull();
  expect(
    misfitOf(notice(0, { kind: 'paid', amount: 1, currency: 'EUR', period: period(0, 29) }), agreed),
  ).toMatch(/1;/);
  expect(misfitOf(notice(0, { kind: 'paid', amount: 1200, currency: 'JPY', period: null }), agreed)).toMatch(
    /JPY/,
  );
  expect(misfitOf(paid(0), once)).toMatch(/for good/);
  expect(misfitOf(renewed(30), once)).toMatch(/bought once/);
  expect(misfitOf(notice(0, { kind: 'paid', ...money, period: null }), agreed)).toMatch(/no period/);
});
