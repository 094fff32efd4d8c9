/** The board. */
export { Board } from './board';
export { PrintScreen } from './print-screen';
export { StandInPanel } from './stand-in-panel';
