/** What the site as a whole is set to. */
import type { Database } from './database';
import { settings } from './schema';
import type { JournalKeeps } from './types';

export interface Settings {
  /** IANA name. */
  readonly timeZone: string;
  /** In hex. */
  readonly shareKey: string;
  /** In hex. */
  readonly passphraseSalt: string;
  readonly journal: JournalKeeps;
  /** How many days the journal keeps. */
  readonly journalDays: number;
  /** For how many days a subscription stays open whose renewal does not come through. */
  readonly graceDays: number;
  /** How far the clock of a demo was moved on, in seconds. */
  readonly clockAhead: number;
}

export async function readSettings(db: Database): Promise<Settings | null> {
  const [row] = await db.select().from(settings);
  return row ?? null;
}

export async function insertSettings(db: Database, values: Settings): Promise<void> {
  await db.insert(settings).values(values);
}

export async function updateSettings(
  db: Database,
  values: Partial<Pick<Settings, 'timeZone' | 'journal' | 'journalDays' | 'graceDays' | 'clockAhead'>>,
): Promise<void> {
  await db.update(settings).set(values);
}
