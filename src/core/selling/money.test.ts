/** Money is whole numbers of a minor unit, written and read with as many decimals as its currency has. */
import * as fc from 'fast-check';
import { expect, it } from 'vitest';
import { addDays } from '../site/day';
import { isCurrency, MOST_AMOUNT, moneyInWords, plainAmount, readAmount, sumsOf } from './money';
import { addMonths, daysFrom, endOfPeriods, periodInWords } from './period';
import { planChange } from './plan-change';

const currencies = ['EUR', 'JPY', 'KWD', 'CLF', 'SEK'] as const;
const problem = (read: ReturnType<typeof readAmount>) => (typeof read === 'number' ? null : read.problem);

it('reads back what it writes, in every currency', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: MOST_AMOUNT }),
      fc.constantFrom(...currencies),
      (amount, currency) => {
        expect(readAmount(plainAmount({ amount, currency }), currency)).toBe(amount);
      },
    ),
  );
});

it('writes amounts with the decimals of their currency', () => {
  const words = (amount: number, currency: string) => moneyInWords({ amount, currency });
  expect(words(1200, 'EUR')).toBe('12.00 €');
  expect(words(5, 'EUR')).toBe('0.05 €');
  expect(words(1_234_567, 'EUR')).toBe('12,345.67 €');
  expect(words(1200, 'JPY')).toBe('1,200 ¥');
  expect(words(3500, 'KWD')).toBe('3.500 KWD');
  expect(words(-250, 'EUR')).toBe('−2.50 €');
});

it('says what is wrong with an amount', () => {
  expect(readAmount('12', 'EUR')).toBe(1200);
  expect(readAmount(' 12,5 ', 'EUR')).toBe(1250);
  for (const text of ['', '-1', '1e5', 'twelve', '1.2.3', '١٢'])
    expect(problem(readAmount(text, 'EUR'))).toMatch(/like 12.00/);
  expect(problem(readAmount('1.005', 'EUR'))).toMatch(/2 decimals/);
  expect(problem(readAmount('1.5', 'JPY'))).toMatch(/no decimals/);
  expect(problem(readAmount('1000000000000', 'EUR'))).toMatch(/At most|at most/);
});

it('knows which currencies there are', () => {
  expect(['EUR', 'JPY', 'KWD'].every(isCurrency)).toBe(true);
  expect(['eur', 'EURO', 'QQQ', ''].some(isCurrency)).toBe(false);
});

it('adds up each currency by itself', () => {
  const list = [
    { amount: 100, currency: 'SEK' },
    { amount: 50, currency: 'EUR' },
    { amount: -20, currency: 'EUR' },
  ];
  expect(sumsOf(list)).toEqual([
    { currency: 'EUR', amount: 30 },
    { currency: 'SEK', amount: 100 },
  ]);
});

it('counts months from the day on which something began, with the last day where a month is shorter', () => {
  expect(addMonths('2026-01-31', 1)).toBe('2026-02-28');
  expect(addMonths('2024-01-31', 1)).toBe('2024-02-29');
  expect(addMonths('2026-11-30', 3)).toBe('2027-02-28');
  expect(endOfPeriods('2026-01-31', 1, 2)).toBe('2026-03-30');
  expect(periodInWords(1)).toBe('a month');
  expect(periodInWords(12)).toBe('a year');
  expect(periodInWords(3)).toBe('every 3 months');
  expect(daysFrom('2026-01-01', '2026-01-31')).toBe(31);
  expect(daysFrom('2026-01-02', '2026-01-01')).toBe(0);
});

it('leaves no day between two periods, and none that is in both', () => {
  const day = fc.integer({ min: 0, max: 1500 }).map((days) => addDays('2024-01-01', days));
  fc.assert(
    fc.property(day, fc.constantFrom(1, 3, 12), fc.integer({ min: 1, max: 30 }), (began, months, at) => {
      expect(addDays(endOfPeriods(began, months, at), 1)).toBe(addMonths(began, months * at));
    }),
  );
});

it('changes a plan without losing a cent of what was paid, or asking for one too many', () => {
  const day = fc.integer({ min: 0, max: 364 });
  const amount = fc.integer({ min: 1, max: 50_000 });
  fc.assert(
    fc.property(amount, amount, day, fc.constantFrom(1, 12), (paid, next, used, months) => {
      const from = '2026-01-01';
      const today = addDays(from, used);
      const old = { amount: paid, currency: 'EUR', months: 12, paid, from, until: '2026-12-31' };
      const change = planChange(old, { amount: next, currency: 'EUR', months }, today);
      if (change.kind === 'at the end') {
        expect(next / months).toBeLessThan(paid / 12);
        expect(change.owed).toBe(0);
        return;
      }
      expect(change.credit).toBeLessThanOrEqual(paid);
      expect(change.owed + Math.min(change.credit, next)).toBe(next);
      // What is more than the new plan costs is as many days of it, and never fewer than it pays for.
      if (change.credit > next) expect(change.freeDays).toBeGreaterThan(0);
      expect(change.owed > 0 && change.freeDays > 0).toBe(false);
    }),
  );
  const year = {
    amount: 12_000,
    currency: 'EUR',
    months: 12,
    paid: 12_000,
    from: '2026-01-01',
    until: '2026-12-31',
  };
  expect(planChange(year, { amount: 25_000, currency: 'EUR', months: 12 }, '2026-07-02')).toEqual({
    kind: 'now',
    credit: 5983,
    owed: 19_017,
    freeDays: 0,
  });
});
