/** The outbox: mail that would have been sent. */
import { desc } from 'drizzle-orm';
import type { Database } from './database';
import { outbox } from './schema';

export type Mail = typeof outbox.$inferSelect;

export async function putIntoOutbox(
  db: Database,
  mail: Pick<Mail, 'to' | 'subject' | 'text' | 'at'>,
): Promise<void> {
  await db.insert(outbox).values(mail);
}

/** The latest mail, the newest first. */
export const readOutbox = (db: Database, most: number): Promise<readonly Mail[]> =>
  db.select().from(outbox).orderBy(desc(outbox.id)).limit(most);
