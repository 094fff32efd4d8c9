/** The outbox as administrators read it: mail that would have been sent. */
import { type Mail, readOutbox } from '@/store';
import type { Administrator } from './desk-right';
import type { Trivet } from './trivet';

const MOST_MAILS = 200;

export const latestMail = (trivet: Trivet, _administrator: Administrator): Promise<readonly Mail[]> =>
  readOutbox(trivet.db, MOST_MAILS);
