/** The visitor's side: renders what core decided. */
export * from './render';
export type { Delivery } from './shell';
