/**
 * Searching the site. The database finds texts that match, each as small as what can be withheld by itself; what of them
 * this visitor may read is decided here, before anything is counted, ordered or quoted.
 */
import { type ItemId, isAddressed, type Outline, pageOf, pathOf } from '@/core';
import { type Database, type Match, readMatches, readPassages } from '@/store';
import { addressIn, decisionOn, opens, type View } from './context';
import { type Frame, frameFor } from './frame';
import { sectionView } from './section-view';
import { contentOf, shownPieces } from './texts';

/** A part of a passage; the words that were asked for are marked. */
export interface PassagePart {
  readonly text: string;
  readonly marked: boolean;
}

export interface Hit {
  readonly item: ItemId;
  readonly title: string;
  readonly address: string;
  readonly passage: readonly PassagePart[];
  /** Whether only a teaser of it is open to this visitor. */
  readonly teaser: boolean;
}

export interface SearchAnswer {
  readonly frame: Frame;
  /** What was asked, without outer spaces; empty for nothing yet. */
  readonly question: string;
  readonly hits: readonly Hit[];
  /** Whether there are more than are told. */
  readonly more: boolean;
}

const MOST_HITS = 50;
const LONGEST_QUESTION = 200;
// Private-use characters, which the texts of a site don't have.
const MARKS = ['\uE001', '\uE002'] as const;

/** Answers a question to the site. */
export async function search(context: View, db: Database, asked: string): Promise<SearchAnswer> {
  const question = asked.normalize('NFC').replaceAll('\0', '').trim().slice(0, LONGEST_QUESTION);
  const frame = frameFor(context, null);
  if (question === '') return { frame, question, hits: [], more: false };
  const { language } = context.state.settings;
  const readable = (await readMatches(db, question, language)).filter((match) => mayRead(context, match));
  const found = new Map<ItemId, { readonly best: Match; readonly rank: number }>();
  for (const match of readable) {
    const item = shownItem(context.state.outline, match.item);
    if (item === null) continue;
    const before = found.get(item);
    // The rank of an item is the sum of what of it may be read.
    found.set(item, {
      best: before && (before.best.kind !== 'title' || match.kind === 'title') ? before.best : match,
      rank: (before?.rank ?? 0) + match.rank,
    });
  }
  const ranked = [...found].sort(([, a], [, b]) => b.rank - a.rank || a.best.id - b.best.id);
  const told = ranked.slice(0, MOST_HITS);
  const passages = await readPassages(
    db,
    told.map(([, { best }]) => best.id),
    question,
    MARKS,
    language,
  );
  return {
    frame,
    question,
    more: ranked.length > told.length,
    hits: told.flatMap(([id, { best }]): Hit[] => {
      const item = context.state.outline.items.get(id);
      const path = pathOf(item);
      if (!item || path === null) return [];
      const passage = best.kind === 'title' ? '' : (passages.get(best.id) ?? '');
      return [
        {
          item: id,
          title: item.title,
          address: addressIn(context, path),
          passage: partsOf(passage),
          teaser: !opens(context, id),
        },
      ];
    }),
  };
}

/** The page, post or file as which something is found. */
function shownItem(outline: Outline, id: ItemId): ItemId | null {
  const item = outline.items.get(id);
  if (!item) return null;
  return item.kind === 'file' || isAddressed(item) ? id : (pageOf(outline, item)?.id ?? null);
}

function mayRead(context: View, match: Match): boolean {
  const item = context.state.outline.items.get(match.item);
  const decision = decisionOn(context, match.item);
  if (!item) return false;
  if (decision.kind === 'turned away') {
    const { turnAway } = decision;
    if (turnAway.kind !== 'teaser' || item.kind === 'section') return false;
    return match.kind === 'title' || (match.kind === 'summary' && turnAway.show.kind === 'summary');
  }
  if (item.kind !== 'section') return true;
  // A section may be open and yet not stand on the page: its picture is closed, or what its button leads to. What is found
  // is what the page shows.
  const view = sectionView(context, item, '/');
  if (view === null) return false;
  if (match.path === '') return view.kind === 'picture' || view.kind === 'video' || view.kind === 'form';
  const { body } = contentOf(context.state, match.item);
  return 'html' in view && shownPieces(context, body).some(({ path }) => path === match.path);
}

function partsOf(passage: string): readonly PassagePart[] {
  const [start, stop] = MARKS;
  return passage.split(start).flatMap((piece, index): PassagePart[] => {
    if (index === 0) return piece === '' ? [] : [{ text: piece, marked: false }];
    const [marked = '', rest = ''] = piece.split(stop);
    return [{ text: marked, marked: true }, ...(rest === '' ? [] : [{ text: rest, marked: false }])];
  });
}
