/**
 * Setting out to buy: what is asked for is held against what this visitor can have, a place is held, the order is written,
 * and the till is told of it. Whoever sets out twice comes to the same order.
 */
import { z } from 'zod';
import { asId, byMessages, momentIn, nothingYet, type OrderId, safeNext } from '@/core';
import {
  findCredentials,
  findVoucher,
  freePlaces,
  hadTrial,
  holdPlace,
  insertOrder,
  insertSession,
  type Order,
  readOpenOrder,
  updateOrder,
  type Voucher,
} from '@/store';
import { accountForm } from '../forms';
import type { Trivet, Visitor } from '../running';
import { environment, hashToken, messagesOf, newToken, plainRequest } from '../running';
import { type Till, TillTrouble } from '../till';
import { hasPrice, holdsNow, opens, type Sold, shownPrice, soldAs, type ViewContext } from '../view';
import { countTry, GUEST_SESSION_MS, MINUTE } from '../visiting';
import { takeNotices } from './take-notice';

/** How long a seat is held while somebody pays. */
const HELD_MS = 15 * MINUTE;
/** How long what has no number can be paid. */
const PAYABLE_MS = 24 * 60 * MINUTE;

const formIn = byMessages(({ shop: words, signUp }) =>
  z.object({
    /** The price's id, and what it was as the page said it: who saw another price is told before they pay. */
    price: z.string({ error: words.choosePrice }).min(1, words.choosePrice).max(200, words.choosePrice),
    voucher: z
      .string({ error: words.longVoucher })
      .trim()
      .toUpperCase()
      .max(60, words.longVoucher)
      .default(''),
    name: z.string({ error: signUp.oneName }).trim().max(200, signUp.longName).default(''),
    email: z.string({ error: signUp.badEmail }).trim().toLowerCase().max(254, signUp.longEmail).default(''),
    next: z.string({ error: words.choosePrice }).max(2000, words.choosePrice).default('/'),
  }),
);

/** What is wrong, by field; `form` for all of it. */
export type BuyProblems = Readonly<Partial<Record<'price' | 'voucher' | 'name' | 'email' | 'form', string>>>;

export type SetOut =
  /** Off to the till, or to where the order is; with the token of a new session for a guest. */
  | { readonly kind: 'on the way'; readonly to: string; readonly token: string | null }
  | {
      readonly kind: 'wrong' | 'too many' | 'not now';
      readonly problems: BuyProblems;
      /** When to try again; 0 unless it was tried too often. */
      readonly seconds: number;
    }
  /** Nothing is sold there to this visitor. */
  | { readonly kind: 'missing' };

const wrong = (problems: BuyProblems): SetOut => ({ kind: 'wrong', problems, seconds: 0 });

/** Where an order is looked at. */
export const orderAddress = (order: OrderId): string => `/shop/order/${order}`;

const MOST_ORDERS = 30;
const MOST_VOUCHERS = 20;

/** Whose an order is to be. */
interface Buyer {
  readonly person: Order['person'];
  readonly email: string;
  readonly name: string;
}

/** Sets out to buy a product. */
export async function setOut(
  trivet: Trivet,
  till: Till | null,
  {
    visitor,
    context,
    from,
  }: { readonly visitor: Visitor; readonly context: ViewContext; readonly from: string },
  productId: string,
  fields: Readonly<Record<string, unknown>>,
  now: Date,
): Promise<SetOut> {
  const sold = soldAs(context, productId);
  if (!sold || !isTheirs(context, sold)) return { kind: 'missing' };
  const messages = messagesOf(trivet.state);
  const { shop: words } = messages;
  const parsed = formIn(messages).safeParse(fields);
  if (!parsed.success)
    return wrong(
      Object.fromEntries(
        parsed.error.issues.map((issue) => [String(issue.path[0] ?? 'form'), issue.message]),
      ),
    );
  const asked = parsed.data;
  const often = await countTry(
    trivet,
    [{ key: `orders ${from}`, most: MOST_ORDERS, within: 15 * MINUTE }],
    now,
  );
  if (often) return { kind: 'too many', problems: { form: often.message }, seconds: often.seconds };
  const { product, stored } = sold;
  const [wanted, shown] = asked.price.split('|');
  const price = stored.terms.prices.find(({ id }) => id === wanted);
  if (!price || !hasPrice(context, price)) return wrong({ price: words.priceGone });
  if (shown !== undefined && shown !== shownPrice(price))
    return wrong({ price: words.priceChanged(messages.price(price)) });
  const today = plainRequest(trivet.state, now).today;
  if (stored.terms.day !== null && stored.terms.day < today) return { kind: 'missing' };
  if (holdsNow(context, product.id)) return wrong({ form: words.hasAlready(product.name) });
  const buyer = await buyerOf(trivet, visitor, asked);
  if ('problems' in buyer) return wrong(buyer.problems);
  const voucher = await voucherFor(trivet, asked.voucher, sold, from, now);
  if (voucher !== null && 'problem' in voucher)
    return voucher.seconds > 0
      ? { kind: 'too many', problems: { voucher: voucher.problem }, seconds: voucher.seconds }
      : wrong({ voucher: voucher.problem });
  const trial = price.trialDays > 0 && !(await hadTrial(trivet.db, buyer.email, product.id));
  const first = trial ? 0 : lessBy(price.amount, voucher?.percent ?? 0);
  const agreed: Order['agreed'] = {
    currency: price.currency,
    amount: price.amount,
    months: price.months,
    first,
    freeDays: trial ? price.trialDays : 0,
    trial,
  };
  const session =
    visitor.session === null ? await guestSession(trivet, now) : { hash: visitor.session, token: null };
  const order: Order = {
    id: asId<OrderId>(newToken()),
    product: product.id,
    productName: product.name,
    ...buyer,
    price: price.id,
    agreed,
    voucher: voucher?.id ?? null,
    replaces: null,
    back: safeNext(asked.next),
    session: session.hash,
    madeAccount: false,
    notedBy: null,
    reference: null,
    payPage: null,
    made: now,
    payUntil: new Date(now.getTime() + (stored.terms.seats === null ? PAYABLE_MS : HELD_MS)),
    askedAt: null,
    state: nothingYet,
    open: true,
    due: [],
  };
  const placed = await place(trivet, order, sold, voucher, now);
  if ('problems' in placed) return wrong(placed.problems);
  const to = await tellTill(trivet, till, placed.order, now);
  if (to === null)
    return {
      kind: 'not now',
      problems: { form: words.noAnswer },
      seconds: 0,
    };
  return { kind: 'on the way', to, token: session.token };
}

const isTheirs = (context: ViewContext, { stored: { terms } }: Sold): boolean =>
  terms.page === null || opens(context, terms.page);

/** An amount less so many percent, in favour of whoever pays. */
export const lessBy = (amount: number, percent: number): number =>
  Math.floor((amount * (100 - percent)) / 100);

async function buyerOf(
  trivet: Trivet,
  { person }: Visitor,
  asked: { readonly name: string; readonly email: string },
): Promise<Buyer | { readonly problems: BuyProblems }> {
  if (person) return { person: person.id, email: person.email, name: person.name };
  const problems: { name?: string; email?: string } = {};
  const messages = messagesOf(trivet.state);
  const { personName, mailAddress } = accountForm(messages);
  const [called, at] = [personName.safeParse(asked.name), mailAddress.safeParse(asked.email)];
  if (!called.success) problems.name = called.error.issues[0]?.message ?? '';
  if (!at.success) problems.email = at.error.issues[0]?.message ?? '';
  if (!called.success || !at.success) return { problems };
  if (await findCredentials(trivet.db, at.data)) return { problems: { email: messages.shop.hasAccount } };
  return { person: null, email: at.data, name: called.data };
}

async function guestSession(
  trivet: Trivet,
  now: Date,
): Promise<{ readonly hash: string; readonly token: string }> {
  const token = newToken();
  const session = {
    tokenHash: hashToken(token),
    person: null,
    passphrases: [],
    expiresAt: new Date(now.getTime() + GUEST_SESSION_MS),
  };
  await insertSession(trivet.db, session, now);
  trivet.rememberSession(session);
  return { hash: session.tokenHash, token };
}

/** The voucher that was typed, if it is good for this; counted before it is looked at. */
async function voucherFor(
  trivet: Trivet,
  code: string,
  { product }: Sold,
  from: string,
  now: Date,
): Promise<Voucher | { readonly problem: string; readonly seconds: number } | null> {
  if (code === '') return null;
  const often = await countTry(
    trivet,
    [{ key: `vouchers ${from}`, most: MOST_VOUCHERS, within: 60 * MINUTE }],
    now,
  );
  if (often) return { problem: often.message, seconds: often.seconds };
  const found = await findVoucher(trivet.db, code);
  const { today } = plainRequest(trivet.state, now);
  const good =
    found?.open &&
    (found.until === null || found.until >= today) &&
    (found.products.length === 0 || found.products.includes(product.id));
  return found && good ? found : { problem: messagesOf(trivet.state).shop.noVoucher, seconds: 0 };
}

/** Holds what has a number and writes the order: all of it or nothing. One that is under way already is the one. */
async function place(
  trivet: Trivet,
  order: Order,
  { stored: { terms } }: Sold,
  voucher: Voucher | null,
  now: Date,
): Promise<{ readonly order: Order } | { readonly problems: BuyProblems }> {
  const { shop: words } = messagesOf(trivet.state);
  const there = await readOpenOrder(trivet.db, order.email, order.product);
  if (there && isSame(there, order) && there.payUntil > now) return { order: there };
  class Full extends Error {
    constructor(readonly problems: BuyProblems) {
      super('Nothing is left.');
    }
  }
  try {
    const written = await trivet.db.transaction(async (tx) => {
      // Who comes with another price or another voucher means this one now.
      if (there) {
        const due: Order['due'] = there.reference === null ? [] : [{ kind: 'withdraw' }];
        const state = { ...there.state, outcome: 'expired' as const };
        await updateOrder(tx, there.id, { open: false, state, due: [...there.due, ...due] });
        await freePlaces(tx, there.id, 'held');
      }
      if (!(await insertOrder(tx, order))) return false;
      const hold = (of: string, most: number) => holdPlace(tx, of, most, order.id, order.payUntil, now);
      if (terms.seats !== null && (await hold(order.product, terms.seats)) === null)
        throw new Full({ form: words.full });
      if (voucher && (await hold(voucher.id, voucher.times)) === null)
        throw new Full({ voucher: words.noVoucher });
      return true;
    });
    if (written) return { order };
  } catch (error) {
    if (error instanceof Full) return { problems: error.problems };
    throw error;
  }
  const other = await readOpenOrder(trivet.db, order.email, order.product);
  return other && isSame(other, order) ? { order: other } : { problems: { form: words.elsewhere } };
}

const isSame = (one: Order, other: Order): boolean =>
  one.price === other.price &&
  one.voucher === other.voucher &&
  one.person === other.person &&
  one.session === other.session &&
  one.agreed.first === other.agreed.first &&
  one.agreed.amount === other.agreed.amount;

/** Tells the till of an order, and answers where to pay; null where the till can't be reached. */
export async function tellTill(
  trivet: Trivet,
  till: Till | null,
  order: Order,
  now: Date,
): Promise<string | null> {
  if (order.payPage !== null) return order.payPage;
  const { agreed } = order;
  if (agreed.first === 0 && agreed.months === null) {
    await giveForNothing(trivet, order, now);
    return orderAddress(order.id);
  }
  if (till === null) return null;
  try {
    const { reference, payPage } = await till.open(
      {
        order: order.id,
        what: order.productName,
        email: order.email,
        currency: agreed.currency,
        first: agreed.first,
        renewal: agreed.months === null ? null : { amount: agreed.amount, months: agreed.months },
        freeDays: agreed.freeDays,
        trial: agreed.trial,
        returnTo: new URL(orderAddress(order.id), environment().publicUrl).href,
        timeZone: trivet.state.settings.timeZone,
        payUntil: order.payUntil.getTime(),
      },
      now,
    );
    await updateOrder(trivet.db, order.id, { reference, payPage });
    return payPage;
  } catch (error) {
    if (!(error instanceof TillTrouble)) throw error;
    // Nobody can pay it, so it keeps nothing from anybody.
    await updateOrder(trivet.db, order.id, { open: false, state: { ...order.state, outcome: 'expired' } });
    await freePlaces(trivet.db, order.id, 'held');
    return null;
  }
}

/** What costs nothing needs no till: the site itself notes that it is paid. */
async function giveForNothing(trivet: Trivet, order: Order, now: Date): Promise<void> {
  const { today } = momentIn(trivet.state.settings.timeZone, now);
  await takeNotices(
    trivet,
    [
      {
        kind: 'paid',
        id: `given ${order.id}`,
        order: order.id,
        at: now.getTime(),
        on: today,
        amount: 0,
        currency: order.agreed.currency,
        period: null,
      },
    ],
    now,
  );
}
