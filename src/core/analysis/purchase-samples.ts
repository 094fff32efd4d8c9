import type { FactName } from '../condition';
import { asId, type ProductId } from '../ids';
import { addDays, type Day, type Purchase } from '../site';
import { always, type DayOf, type Ground } from './dates';
import { atMost } from './diagram';
import { MOST_SAMPLES } from './samples';
import type { Asked, Asking } from './things';

/**
 * Whole records of purchases of one product, so that facts of it can't disagree. Whatever somebody bought comes to what three
 * records do: the one bought last, one beside it that is running, and one that was given back.
 */
export function purchaseSamples(
  product: ProductId,
  asked: readonly Asked[],
  dated: () => readonly DayOf[],
  { from }: Ground,
): readonly ((asking: Asking) => readonly Purchase[])[] {
  const asks = (...facts: readonly FactName[]) => asked.some(({ test }) => facts.includes(test.fact));
  const past = addDays(from, -1000);
  const far: Day = '9999-12-31';
  const flags = (fact: FactName) => (asks(fact) ? [false, true] : [false]);
  const flagged = flags('late').flatMap((late) =>
    flags('trial').flatMap((trial) => flags('voucher').map((voucher) => ({ late, trial, voucher }))),
  );
  const [none = { late: false, trial: false, voucher: false }] = flagged;
  const record = (
    on: Day,
    until: Day | null,
    { late, trial, voucher }: typeof none,
    renews: Day | null,
  ): Purchase => ({
    product,
    on,
    until,
    state: 'paid',
    order: {
      id: asId('made-up'),
      paidUntil: late ? past : null,
      trialUntil: trial ? far : null,
      renews,
      voucher,
    },
  });
  const bought = asks('purchase') ? [always(past), ...dated()] : [past, from, far].map(always);
  const ends = [() => null, (on: Day) => on, (on: Day) => addDays(on, -1)];
  const last = (flag: typeof none) =>
    bought.flatMap((on) =>
      ends.map((end) => (asking: Asking) => record(on(asking), end(on(asking)), flag, null)),
    );
  const renewals = asks('renewal') ? [null, ...dated(), always(far)] : [null];
  const beside = renewals.flatMap((renews) =>
    flagged.map((flag) => (asking: Asking) => record(past, null, flag, renews?.(asking) ?? null)),
  );
  atMost(MOST_SAMPLES, (bought.length * ends.length + 1) * (renewals.length + 1) * flagged.length);
  // What was given back was had, unless that day is still to come.
  const backs = [past, far].map((on): Purchase => ({ product, on, until: null, state: 'refunded' }));
  const lists = [
    () => [],
    ...[...flagged.flatMap(last), ...beside].map((one) => (asking: Asking) => [one(asking)]),
    ...beside.flatMap((other) => last(none).map((one) => (asking: Asking) => [other(asking), one(asking)])),
  ];
  return asks('refunded', 'ever owned', 'ended')
    ? [...lists, ...backs.flatMap((back) => lists.map((list) => (asking: Asking) => [...list(asking), back]))]
    : lists;
}
