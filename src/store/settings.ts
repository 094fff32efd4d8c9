/** What the site as a whole is set to. */
import type { Database } from './database';
import { settings } from './schema';

export interface Settings {
  /** IANA name. */
  readonly timeZone: string;
  /** In hex. */
  readonly shareKey: string;
  /** In hex. */
  readonly passphraseSalt: string;
}

export async function readSettings(db: Database): Promise<Settings | null> {
  const [row] = await db.select().from(settings);
  return row ?? null;
}

export async function insertSettings(db: Database, values: Settings): Promise<void> {
  await db.insert(settings).values(values);
}
