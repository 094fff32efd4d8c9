/** Interface primitives, without words of the domain. */
export * from './button';
export * from './choice';
export * from './download';
export * from './finder';
export * from './input';
export * from './pick';
export { Tick } from './tick';
