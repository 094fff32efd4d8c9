/** An order as a purchase, of which facts are made. */
import type { OrderId, ProductId } from '../ids';
import { addDays, type Day } from '../site/day';
import type { Purchase } from '../site/visitor';
import type { OrderState } from './order-state';

/** The last day on which an order is good: paid until, and so many days of grace where a renewal is awaited; null for good. */
export function lastDayOf({ paidUntil, renews, ends }: OrderState, graceDays: number): Day | null {
  const kept = paidUntil === null || renews === null ? paidUntil : addDays(paidUntil, graceDays);
  return ends === null || (kept !== null && kept < ends) ? kept : ends;
}

/** What somebody has by an order; null while nothing has been paid. */
export function purchaseOf(
  order: { readonly id: OrderId; readonly product: ProductId; readonly voucher: boolean },
  state: OrderState,
  graceDays: number,
): Purchase | null {
  if (state.began === null) return null;
  const { began, paidUntil, trialUntil, renews, endedBy } = state;
  return {
    product: order.product,
    on: began,
    until: lastDayOf(state, graceDays),
    state: endedBy === 'refunded' ? 'refunded' : endedBy === 'disputed' ? 'failed' : 'paid',
    order: { id: order.id, paidUntil, trialUntil, renews, voucher: order.voucher },
  };
}
