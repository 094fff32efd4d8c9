/** The visitor's side: renders what core decided. */
export { type Rendered, renderAnswer, renderPassphrase, renderSignIn } from './render';
export type { Delivery } from './shell';
