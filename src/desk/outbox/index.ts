/** Mail that would have been sent. */
export { OutboxScreen } from './outbox-screen';
