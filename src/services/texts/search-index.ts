/** What can be searched for: the texts of items, cut as small as what can be withheld by itself. */
import { setImmediate } from 'node:timers/promises';
import { type ItemId, isShared, type Outline, parseRegions, textsIn, type Vocabulary } from '@/core';
import {
  type Content,
  countSearchTexts,
  type Database,
  deleteSearchTexts,
  insertSearchTexts,
  type SearchText,
  type SectionContent,
  type StoredItem,
} from '@/store';
import { readAhead, renderedWords } from './renderings';

/** The searchable texts of an item. */
export function searchTextsOf(
  { item, content }: StoredItem,
  vocabulary: Vocabulary,
  wordsOf: (text: string) => string = renderedWords,
): readonly SearchText[] {
  const text = (kind: SearchText['kind'], words: string, path = ''): SearchText[] =>
    words.trim() === '' ? [] : [{ item: item.id, kind, path, text: words.replaceAll('\0', '') }];
  switch (item.kind) {
    case 'page':
    case 'post':
    case 'course':
    case 'activity':
    case 'file':
      return [...text('title', item.title), ...text('summary', content.summary)];
    case 'section': {
      // What stands on many pages is found at none of them.
      if (isShared(item)) return [];
      const { section } = content;
      const { pieces } = parseRegions(content.body, vocabulary);
      return [
        ...text('text', section ? wordsBeside(section) : ''),
        ...textsIn(pieces).flatMap((piece) => text('text', wordsOf(piece.text), piece.path)),
      ];
    }
    case 'unit':
      return text('title', item.title);
    case 'site':
    case 'menu':
    case 'link':
      return [];
    default:
      return item satisfies never;
  }
}

/** What a section says beside its text. */
function wordsBeside(section: SectionContent): string {
  switch (section.type) {
    case 'picture':
      return `${section.caption}\n${section.alt}`;
    case 'video':
      return section.caption;
    case 'form':
      return section.fields.map(({ label }) => label).join('\n');
    case 'call':
    case 'posts':
    case 'outline':
    case 'files':
    case 'follow':
    case 'prices':
      return '';
    default:
      return section satisfies never;
  }
}

/** The searchable texts of many items, worked out before anything is written: others are answered in between. */
export async function searchTextsIn(
  stored: readonly StoredItem[],
  vocabulary: Vocabulary,
  /** The words of texts that have been read already. */
  known: ReadonlyMap<string, string> = new Map(),
): Promise<readonly SearchText[]> {
  const texts: SearchText[] = [];
  let rested = performance.now();
  for (const one of stored) {
    const pieces = textsIn(parseRegions(one.content.body, vocabulary).pieces).map(({ text }) => text);
    await readAhead(pieces.filter((text) => !known.has(text)));
    texts.push(...searchTextsOf(one, vocabulary, (text) => known.get(text) ?? renderedWords(text)));
    if (performance.now() - rested < AT_ONCE_MS) continue;
    await setImmediate();
    rested = performance.now();
  }
  return texts;
}

/** Makes some items searchable as they are now. Belongs in the transaction that changes them. */
export async function indexItems(
  db: Database,
  stored: readonly StoredItem[],
  vocabulary: Vocabulary,
): Promise<void> {
  const texts = await searchTextsIn(stored, vocabulary);
  await writeSearchTexts(
    db,
    texts,
    stored.map(({ item }) => item.id),
  );
}

/** Writes searchable texts, in the place of those that some items have. */
export async function writeSearchTexts(
  db: Database,
  texts: readonly SearchText[],
  instead: readonly ItemId[],
): Promise<void> {
  await deleteSearchTexts(db, instead);
  for (let at = 0; at < texts.length; at += AT_ONCE) {
    if (at > 0) await setImmediate();
    await insertSearchTexts(db, texts.slice(at, at + AT_ONCE));
  }
}

const AT_ONCE = 200;
const AT_ONCE_MS = 15;

/** Makes a site searchable that is from before there was a search. */
export async function indexOnce(
  db: Database,
  { outline, contents }: { readonly outline: Outline; readonly contents: ReadonlyMap<ItemId, Content> },
  vocabulary: Vocabulary,
): Promise<void> {
  if ((await countSearchTexts(db)) > 0) return;
  const stored = [...outline.items.values()].flatMap((item) => {
    const content = contents.get(item.id);
    return content ? [{ item, content }] : [];
  });
  await db.transaction((tx) => indexItems(tx, stored, vocabulary));
}
