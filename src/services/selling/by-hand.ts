/** Selling and giving at the desk, where no till takes the money: what it would open first, and then as one change. */
import { z } from 'zod';
import {
  addDays,
  asId,
  type Day,
  dayInWords,
  endOfPeriods,
  isCurrency,
  isGoodOn,
  type Money,
  moneyInWords,
  nameOfId,
  nothingYet,
  type OrderId,
  type PersonId,
  type PriceId,
  type ProductId,
  readAmount,
} from '@/core';
import { holdPlace, insertOrder, type Order, orderOfNotice, takenPlaces } from '@/store';
import { dayForm, id } from '../forms';
import {
  type Administrator,
  momentAt,
  newToken,
  type Person,
  requirePermission,
  type SiteState,
  type Trivet,
} from '../running';
import { type IfGiven, ifGiven } from './purchase-effect';
import { noteIn } from './take-notice';

const what = {
  person: id,
  product: id,
  /** The last day on which it is good; null for good. */
  until: dayForm.nullable().default(null),
};
const asking = z.strictObject(what);
const selling = z.strictObject({
  ...what,
  /** What was paid, as it is typed; nothing for a gift. */
  paid: z.string().trim().max(30),
  currency: z
    .string()
    .regex(/^[A-Z]{3}$/)
    .refine(isCurrency),
  /** Tells this sale from another, so that sending it twice sells once. */
  key: z.string().min(8).max(100),
});

/** What selling or giving something would do, or why it can't be. */
export interface ByHandPreview extends IfGiven {
  readonly against: string | null;
  /** The day on which it begins: today, or the day after what they have of it already. */
  readonly from: Day;
  /** How many seats there are and are taken or held; null where it has none. */
  readonly seats: { readonly taken: number; readonly all: number } | null;
  /** What it costs in the shop by the first of its prices, and until when that is good; null where it has none. */
  readonly usual: (Money & { readonly until: Day | null }) | null;
}

/** What giving somebody a product would do, before it is done; null where there is no such person or product. */
export async function byHandPreview(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  now: Date,
): Promise<ByHandPreview | null> {
  requirePermission(administrator, 'people');
  const parsed = asking.safeParse(input);
  const { state, db } = trivet;
  const found = parsed.success ? wanted(state, parsed.data) : null;
  if (!parsed.success || !found) return null;
  const { person, product } = found;
  const { until } = parsed.data;
  const begins = beginning(state, found, until, now);
  const { today } = momentAt(state, now);
  const from = 'from' in begins ? begins.from : today;
  const terms = state.shop.get(product)?.terms;
  const price = terms?.prices[0];
  const all = terms?.seats ?? null;
  const taken = all === null ? 0 : await takenPlaces(db, product);
  return {
    ...ifGiven(state, person, product, { from, until }, now),
    against: 'against' in begins ? begins.against : all !== null && taken >= all ? NO_SEAT : null,
    from,
    seats: all === null ? null : { taken, all },
    usual: price
      ? {
          amount: price.amount,
          currency: price.currency,
          until: price.months === null ? null : endOfPeriods(from, price.months, 1),
        }
      : null,
  };
}

export type SoldByHand =
  | { readonly kind: 'done'; readonly summary: string; readonly order: OrderId }
  | { readonly kind: 'wrong'; readonly message: string };

const NO_SEAT = 'Every seat is taken, or held for somebody who is paying just now.';

interface Wanted {
  readonly person: Person;
  readonly product: ProductId;
  readonly name: string;
}

function wanted(
  state: SiteState,
  { person, product }: { readonly person: string; readonly product: string },
): Wanted | null {
  const found = state.people.get(asId<PersonId>(person));
  const name = nameOfId(state.live.compiled.vocabulary, 'product', product);
  return found && name !== undefined && name !== null
    ? { person: found, product: asId<ProductId>(product), name }
    : null;
}

/** From when on it would be theirs, or why it can't be. */
function beginning(
  state: SiteState,
  { person: { name: who, facts }, product, name }: Wanted,
  until: Day | null,
  now: Date,
): { readonly from: Day } | { readonly against: string } {
  const { today } = momentAt(state, now);
  if (until !== null && until < today)
    return { against: 'Its last day is over. Choose today or a day to come.' };
  const running = (facts.purchases ?? []).filter(
    (one) => one.product === product && one.state === 'paid' && isGoodOn(one, today),
  );
  const last = running
    .flatMap((one) => (one.until === null ? [] : [one.until]))
    .toSorted()
    .at(-1);
  if (running.some((one) => one.until === null)) return { against: `${who} has ${name} already, for good.` };
  if (last === undefined) return { from: today };
  if (running.some(({ order }) => order?.renews != null))
    return { against: `${who} has ${name} already, and it renews by itself.` };
  if (state.shop.get(product)?.terms.seats != null)
    return { against: `${who} has a seat already, until ${dayInWords(last)}.` };
  if (until !== null && until <= last)
    return { against: `${who} has ${name} until ${dayInWords(last)} already. Choose a later last day.` };
  return { from: addDays(last, 1) };
}

/** Sells or gives a product to somebody: an order that the site notes as paid, with everything that follows, or nothing. */
export async function sellByHand(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  now: Date,
): Promise<SoldByHand> {
  requirePermission(administrator, 'people');
  const parsed = selling.safeParse(input);
  if (!parsed.success) return wrong('Choose who gets it, what they get, and in which currency it was paid.');
  const { paid, currency, until, key } = parsed.data;
  const amount = paid === '' ? 0 : readAmount(paid, currency);
  if (typeof amount !== 'number') return wrong(amount.problem);
  const notice = `by hand ${key}`;
  try {
    return await trivet.change(async (state) => {
      const found = wanted(state, parsed.data);
      if (!found) throw new Stopped('There is no such person or product any more.');
      const { person, product, name } = found;
      const summary =
        amount === 0
          ? `${name} given to ${person.name}`
          : `${name} sold to ${person.name} for ${moneyInWords({ amount, currency })}`;
      const id = await trivet.db.transaction(async (tx) => {
        const sold = await orderOfNotice(tx, notice);
        if (sold !== null) return sold;
        const begins = beginning(state, found, until, now);
        if ('against' in begins) throw new Stopped(begins.against);
        const { from } = begins;
        const order = orderOf(
          { person, product, name, amount, currency, until, by: administrator.name },
          now,
        );
        await insertOrder(tx, order);
        const seats = state.shop.get(product)?.terms.seats ?? null;
        if (seats !== null && (await holdPlace(tx, product, seats, order.id, now, now)) === null)
          throw new Stopped(NO_SEAT);
        const { today } = momentAt(state, now);
        const told = { id: notice, order: order.id, at: now.getTime(), on: today, amount, currency };
        const period = until === null ? null : { from, until, renews: null, trial: false };
        const made = await noteIn(tx, state, order.id, [{ kind: 'paid', ...told, period }], now);
        if (made.back) throw new Stopped(made.back);
        if (made.news === 0) throw new Stopped('That was sold in another place just now. Look again.');
        return order.id;
      });
      return { kind: 'done', summary, order: id } as const;
    });
  } catch (error) {
    if (error instanceof Stopped) return wrong(error.message);
    throw error;
  }
}

/** Takes back everything that was written, and says why. */
class Stopped extends Error {}

const wrong = (message: string): SoldByHand => ({ kind: 'wrong', message });

function orderOf(
  sale: Wanted & {
    readonly amount: number;
    readonly currency: string;
    readonly until: Day | null;
    readonly by: string;
  },
  now: Date,
): Order {
  const { person, product, name, amount, currency, until, by } = sale;
  return {
    id: asId<OrderId>(newToken()),
    product,
    productName: name,
    person: person.id,
    email: person.email,
    name: person.name,
    price: asId<PriceId>('by hand'),
    agreed: {
      currency,
      amount,
      months: null,
      first: amount,
      freeDays: 0,
      trial: false,
      ...(until !== null && { until }),
    },
    voucher: null,
    replaces: null,
    back: '/',
    session: null,
    madeAccount: false,
    notedBy: by,
    reference: null,
    payPage: null,
    made: now,
    payUntil: now,
    askedAt: null,
    state: nothingYet,
    open: false,
    due: [],
  };
}
