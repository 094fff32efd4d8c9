/** Who paid for a product at the till, and has it still. */
import { isHeldOn } from '@/core';
import { plainRequest, type SiteState } from '../running';

/** How many people have a product by an order that is good today. */
export function holdersAtTill(state: SiteState, product: string, now: Date): number {
  const { today } = plainRequest(state, now);
  return [...state.bought.values()].filter((purchases) =>
    purchases.some((one) => one.product === product && isHeldOn(one, today)),
  ).length;
}
