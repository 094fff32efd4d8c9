/** What is sold, and what was. */
export { SalesScreen } from './sales-screen';
export { ShopScreen } from './shop-screen';
