/** Selling: money, what products are sold for and give, and what has become of orders. */
export * from './money';
export * from './notice';
export * from './order-state';
export * from './period';
export * from './plan-change';
export * from './purchase-of';
export * from './terms';
