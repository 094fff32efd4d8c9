/** What is done about an order at the desk: giving money back, and ending it; by the till, or here where no till took it. */
import { z } from 'zod';
import { addDays, moneyInWords, type Notice, readAmount } from '@/core';
import { lockOrder, type Order, orderOfNotice, readOrder } from '@/store';
import { id } from '../forms';
import { type Administrator, momentAt, requirePermission, type Trivet } from '../running';
import { type Till, TillTrouble } from '../till';
import { askAbout } from './ask-till';
import { noteIn } from './take-notice';

export type SaleStep =
  | { readonly kind: 'done'; readonly summary: string }
  | { readonly kind: 'wrong'; readonly message: string };

const wrong = (message: string): SaleStep => ({ kind: 'wrong', message });
const NO_TILL = wrong('The till knows nothing of this order.');

/** What is still there of what came in for an order, in the minor unit of its currency. */
export const leftOf = (order: Order): number => paidBy(order) - order.state.refunded;
export const paidBy = ({ state }: Order): number =>
  state.payments.reduce((sum, { amount }) => sum + amount, 0);

const refunding = z.strictObject({
  order: id,
  /** As it is typed. */
  amount: z.string().max(30),
  ends: z.boolean(),
  /** Tells this refund from another, so that sending it twice gives back once. */
  key: z.string().min(8).max(100),
});

/** Gives money back, and ends what was bought with it or not. */
export async function refundOrder(
  trivet: Trivet,
  till: Till | null,
  administrator: Administrator,
  input: unknown,
  now: Date,
): Promise<SaleStep> {
  requirePermission(administrator, 'everything');
  const parsed = refunding.safeParse(input);
  if (!parsed.success) return wrong('Say what is to be given back.');
  const order = await readOrder(trivet.db, parsed.data.order);
  if (!order) return NO_TILL;
  const { key, ends } = parsed.data;
  const { currency } = order.agreed;
  const amount = readAmount(parsed.data.amount, currency);
  if (typeof amount !== 'number') return wrong(amount.problem);
  if (amount === 0) return wrong('Give back more than nothing.');
  const tooMuch = (current: Order) =>
    amount > leftOf(current)
      ? `At most ${moneyInWords({ amount: leftOf(current), currency })} can be given back.`
      : null;
  const summary = `${moneyInWords({ amount, currency })} given back to ${order.name}${ends ? `, and ${order.productName} ended` : ''}`;
  if (order.notedBy !== null)
    return noted(trivet, order, `by hand ${key}`, now, summary, tooMuch, (told) => ({
      kind: 'refunded',
      ...told,
      amount,
      currency,
      ends,
    }));
  const problem = tooMuch(order);
  if (problem !== null) return wrong(problem);
  return asked(trivet, till, order, now, summary, (at, reference) =>
    at.refund(reference, { key, amount, ends }, now),
  );
}

const ending = z.strictObject({ order: id, when: z.enum(['now', 'at the end']) });

/** Ends what was bought, now or with the time that is paid for. */
export async function endOrder(
  trivet: Trivet,
  till: Till | null,
  administrator: Administrator,
  input: unknown,
  now: Date,
): Promise<SaleStep> {
  requirePermission(administrator, 'everything');
  const parsed = ending.safeParse(input);
  if (!parsed.success) return wrong('Say when it is to end.');
  const order = await readOrder(trivet.db, parsed.data.order);
  if (!order) return NO_TILL;
  const { when } = parsed.data;
  const summary =
    when === 'now'
      ? `${order.productName} of ${order.name} ended`
      : `${order.productName} of ${order.name} will not renew`;
  if (order.notedBy === null)
    return asked(trivet, till, order, now, summary, (at, reference) => at.cancel(reference, when, now));
  if (when !== 'now') return wrong('It is not paid again, so it can only be ended now.');
  return noted(
    trivet,
    order,
    `by hand end ${order.id}`,
    now,
    summary,
    () => null,
    (told) => ({ kind: 'cancelled', ...told, until: addDays(told.on, -1) }),
  );
}

/** Has the till do something, and takes what it tells of it. */
async function asked(
  trivet: Trivet,
  till: Till | null,
  order: Order,
  now: Date,
  summary: string,
  step: (till: Till, reference: string) => Promise<void>,
): Promise<SaleStep> {
  if (order.reference === null || till === null) return NO_TILL;
  try {
    await step(till, order.reference);
    await askAbout(trivet, till, order, now);
    return { kind: 'done', summary };
  } catch (error) {
    if (error instanceof TillTrouble) return wrong(`${error.message} Nothing was changed; try again.`);
    throw error;
  }
}

/** Notes what an administrator says of an order of which no till knows, unless something speaks against it by now. */
function noted(
  trivet: Trivet,
  { id: order }: Order,
  notice: string,
  now: Date,
  summary: string,
  against: (order: Order) => string | null,
  saying: (told: Pick<Notice, 'id' | 'order' | 'at' | 'on'>) => Notice,
): Promise<SaleStep> {
  return trivet.change((state) =>
    trivet.db.transaction(async (tx) => {
      const current = await lockOrder(tx, order);
      const told = { id: notice, order, at: now.getTime(), on: momentAt(state, now).today };
      const known = (await orderOfNotice(tx, notice)) !== null;
      const problem = current === null ? 'There is no such order.' : known ? null : against(current);
      if (problem !== null) return wrong(problem);
      await noteIn(tx, state, order, [saying(told)], now);
      return { kind: 'done', summary };
    }),
  );
}
