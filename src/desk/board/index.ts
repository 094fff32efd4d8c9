/** The board. Its panel and its paper are read when they are wanted, each by itself. */
export { Board } from './board';
