/** The board. */
export { Board } from './board';
