/** The outbox as administrators read it: mail that would have been sent. */
import { type Mail, readOutbox } from '@/store';
import type { Trivet } from '../running';
import { type Administrator, requirePermission } from '../running';

const MOST_MAILS = 200;

/** With the codes in it a mail opens the account it was sent to, so only owners read them. */
export function latestMail(trivet: Trivet, administrator: Administrator): Promise<readonly Mail[]> {
  requirePermission(administrator, 'everything');
  return readOutbox(trivet.db, MOST_MAILS);
}
