/** What the site as a whole is set to. */
import { sql } from 'drizzle-orm';
import type { Database } from './database';
import { settings } from './schema';
import { readTextsIn } from './search-texts';
import type { JournalKeeps, SignUp, SiteLetters, SiteLook, SiteStarts, SiteWords } from './types';

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
  /** Who may make an account by themselves; whoever is written down always may. */
  readonly signUp: SignUp;
  /** The domains of mail addresses, in lower case, where it goes by them. */
  readonly signUpDomains: readonly string[];
  /** How the site looks; null for what every site looks like at first. */
  readonly look: SiteLook | null;
  readonly words: SiteWords;
  /** The language of the site, a tag (BCP 47). */
  readonly language: string;
  readonly letters: SiteLetters;
  /** What somebody has who makes an account by themselves. */
  readonly starts: SiteStarts;
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
  values: Partial<Omit<Settings, 'shareKey' | 'passphraseSalt'>>,
): Promise<void> {
  await db.update(settings).set(values);
  if (values.language !== undefined) await readTextsIn(db, values.language);
}

/** Writes what a kind of letter says, and no other; null for what Trivet says itself. */
export async function writeSiteLetter(
  db: Database,
  kind: keyof SiteLetters,
  letter: { readonly subject: string; readonly text: string } | null,
): Promise<void> {
  const without = sql`${settings.letters} - ${kind}::text`;
  const letters =
    letter === null
      ? without
      : sql`${without} || jsonb_build_object(${kind}::text, ${JSON.stringify(letter)}::jsonb)`;
  await db.update(settings).set({ letters });
}
