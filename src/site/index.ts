/** The visitor's side: renders what core decided. */
export { type Rendered, renderAnswer, renderSignIn } from './render';
export type { Delivery } from './shell';
