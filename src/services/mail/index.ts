/** Letters: how they look, how they go out, and the outbox. */
export { mailerAt } from './mailer';
export { latestMail, sendFromOutbox } from './outbox';
export {
  keepLetter,
  type LetterAnswer,
  openLetters,
  type SiteLetter,
  sendSampleLetter,
} from './site-letters';
export { tendMail } from './tend-mail';
export { writtenLetter } from './written-letter';
