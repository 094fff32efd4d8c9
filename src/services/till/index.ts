/** Talking with the till: its interface, signatures both ways, and how it is reached. */
export { runningTill, sellWith } from './running-till';
export { checkSignature, HEADERS, signed } from './signing';
export { noticeForm, type Till, type TillAnswer, type TillOrder, TillTrouble } from './till';
export { type TillSettings, tillAt } from './till-client';
