/** Searching the texts of the site with PostgreSQL full text, in the language of the site. */
import { desc, inArray, sql } from 'drizzle-orm';
import { asId, type ItemId } from '@/core';
import type { Database } from './database';
import { oneOf } from './one-of';
import { searchTexts, settings } from './schema';

/** One searchable text: a title, a summary, or a piece of a section. */
export interface SearchText {
  readonly item: ItemId;
  readonly kind: 'title' | 'summary' | 'text';
  readonly path: string;
  readonly text: string;
}

/** A text that matches. Its rank depends on itself and the question alone, never on other texts. */
export interface Match extends SearchText {
  readonly id: number;
  readonly rank: number;
}

const AT_ONCE = 1000;

/** What PostgreSQL calls the languages that it can read, by their tags (ISO 639-1). */
const CONFIGS: Readonly<Record<string, string>> = {
  ar: 'arabic',
  ca: 'catalan',
  da: 'danish',
  de: 'german',
  el: 'greek',
  en: 'english',
  es: 'spanish',
  et: 'estonian',
  eu: 'basque',
  fi: 'finnish',
  fr: 'french',
  ga: 'irish',
  hi: 'hindi',
  hu: 'hungarian',
  hy: 'armenian',
  id: 'indonesian',
  it: 'italian',
  lt: 'lithuanian',
  nb: 'norwegian',
  ne: 'nepali',
  nl: 'dutch',
  nn: 'norwegian',
  no: 'norwegian',
  pt: 'portuguese',
  ro: 'romanian',
  ru: 'russian',
  sr: 'serbian',
  sv: 'swedish',
  ta: 'tamil',
  tr: 'turkish',
  yi: 'yiddish',
};

/** How words are read in a language (BCP 47); as they stand, where PostgreSQL does not know it. */
const configOf = (language: string): string => {
  const [tag = ''] = language.toLowerCase().split('-');
  return Object.hasOwn(CONFIGS, tag) ? (CONFIGS[tag] ?? 'simple') : 'simple';
};

export async function insertSearchTexts(db: Database, texts: readonly SearchText[]): Promise<void> {
  if (texts.length === 0) return;
  const [row] = await db.select({ language: settings.language }).from(settings);
  const config = configOf(row?.language ?? 'en');
  for (let at = 0; at < texts.length; at += AT_ONCE)
    await db.insert(searchTexts).values(texts.slice(at, at + AT_ONCE).map((one) => ({ ...one, config })));
}

/** Reads every text anew in a language. Belongs in the transaction in which the site changes to it. */
export async function readTextsIn(db: Database, language: string): Promise<void> {
  const config = configOf(language);
  await db
    .update(searchTexts)
    .set({ config })
    .where(sql`${searchTexts.config} <> ${config}::text::regconfig`);
}

export async function deleteSearchTexts(db: Database, list: readonly ItemId[]): Promise<void> {
  if (list.length > 0) await db.delete(searchTexts).where(oneOf(searchTexts.item, list));
}

/** Everything that matches a question in the manner of web search engines, the best first. */
export async function readMatches(
  db: Database,
  question: string,
  language: string,
): Promise<readonly Match[]> {
  const query = sql`websearch_to_tsquery(${configOf(language)}::text::regconfig, ${question})`;
  const weight = sql`case ${searchTexts.kind} when 'title' then 4 when 'summary' then 2 else 1 end`;
  const rank = sql<number>`ts_rank(${searchTexts.words}, ${query}) * ${weight}`;
  const rows = await db
    .select({
      id: searchTexts.id,
      item: searchTexts.item,
      kind: searchTexts.kind,
      path: searchTexts.path,
      text: searchTexts.text,
      rank,
    })
    .from(searchTexts)
    .where(sql`${searchTexts.words} @@ ${query}`)
    .orderBy(desc(rank), searchTexts.id);
  return rows.map((row) => ({ ...row, item: asId<ItemId>(row.item) }));
}

/** The places in some texts that match, each text in one statement: short passages with the marks around the words. */
export async function readPassages(
  db: Database,
  ids: readonly number[],
  question: string,
  marks: readonly [string, string],
  language: string,
): Promise<ReadonlyMap<number, string>> {
  if (ids.length === 0) return new Map();
  const config = sql`${configOf(language)}::text::regconfig`;
  const options = `StartSel=${marks[0]}, StopSel=${marks[1]}, MaxWords=28, MinWords=12, MaxFragments=1`;
  const rows = await db
    .select({
      id: searchTexts.id,
      passage: sql<string>`ts_headline(${config}, ${searchTexts.text}, websearch_to_tsquery(${config}, ${question}), ${options})`,
    })
    .from(searchTexts)
    .where(inArray(searchTexts.id, [...ids]));
  return new Map(rows.map(({ id, passage }) => [id, passage]));
}

/** How many searchable texts there are; none for a site from before there was a search. */
export const countSearchTexts = async (db: Database): Promise<number> => db.$count(searchTexts);
