/**
 * Marked regions: parts of a text that are shown to some. A region is a container of lines, in the manner of container
 * directives: `:::for` with a condition in the text form, further cases, a last one, and an end.
 *
 *     :::for level at least "Observer"
 *     Shown to Observers and above.
 *     :::or for not signed in
 *     Shown to guests.
 *     :::otherwise
 *     Shown to everybody else.
 *     :::
 *
 * The text is cut into pieces here, before anything reads it as Markdown, and each piece is read by itself: so nothing in
 * a withheld piece can show through another. From the first thing that is wrong, nothing is shown to anybody.
 */
import { expanded } from '../condition/audience';
import { asksOfItem } from '../condition/catalogue';
import { type Condition, testsIn } from '../condition/condition';
import type { Vocabulary } from '../site/vocabulary';
import { parseCondition } from './parse';
import { type Calling, printCondition } from './print';

/** A piece of a text, with a path that stays the same as long as the text does. */
export type Piece =
  | { readonly kind: 'text'; readonly path: string; readonly text: string }
  | {
      readonly kind: 'region';
      readonly path: string;
      readonly cases: readonly RegionCase[];
      readonly last: readonly Piece[];
    };

export interface RegionCase {
  readonly when: Condition;
  readonly pieces: readonly Piece[];
}

/** What is wrong with a region, and where. */
export interface RegionProblem {
  /** Counted from 1. */
  readonly line: number;
  readonly column: number;
  readonly message: string;
}

/** A text with its regions. */
export interface Regions {
  readonly pieces: readonly Piece[];
  /** When there is one, the pieces end before the region that it is in. */
  readonly problem: RegionProblem | null;
}

const DEEPEST_REGION = 5;
const MOST_REGIONS = 100;

interface Open {
  readonly line: number;
  readonly path: string;
  readonly cases: { readonly when: Condition; readonly pieces: Piece[] }[];
  last: Piece[] | null;
  /** Where pieces go at present. */
  into: Piece[];
}

// Also what looks like a region's line and is none: fewer colons, behind a list's or a quotation's mark, wide colons.
const MARKER = /^([\s>*+\-\d.)]*)([:：]{2,})(.*)$/;

/** Where in a line colons stand that begin a region, or look as if they did; null where there are none. */
export const regionMarkIn = (line: string): number | null => MARKER.exec(line)?.[1]?.length ?? null;

/**
 * Reads the regions of a text. Those of a shared section may ask about the item as well: that is the host.
 */
export function parseRegions(text: string, vocabulary: Vocabulary, ofShared = false): Regions {
  const top: Piece[] = [];
  const open: Open[] = [];
  let plain: string[] = [];
  let regions = 0;
  const into = () => open.at(-1)?.into ?? top;
  const pathIn = (pieces: readonly Piece[]) => {
    const above = open.at(-1);
    if (!above) return String(pieces.length);
    const branch = above.last === pieces ? 'x' : String(above.cases.length - 1);
    return `${above.path}.${branch}.${pieces.length}`;
  };
  const flush = () => {
    const piece = plain.join('\n');
    if (piece.trim() !== '') into().push({ kind: 'text', path: pathIn(into()), text: piece });
    plain = [];
  };
  const lines = text.split('\n');
  const stop = (line: number, column: number, message: string): Regions => {
    // What stands before the outermost region that is open has been read to its end.
    if (open.length === 0) flush();
    return { pieces: top, problem: { line, column, message } };
  };
  for (const [index, whole] of lines.entries()) {
    const line = index + 1;
    const found = MARKER.exec(whole.replace(/\r$/, ''));
    if (!found) {
      plain.push(whole);
      continue;
    }
    const [, before = '', colons = '', rest = ''] = found;
    const said = rest.trim();
    if (before !== '' || colons !== ':::')
      return stop(
        line,
        1,
        'A region’s line begins with three colons and nothing before them. Write :::for, :::or for, :::otherwise or :::',
      );
    const words = /^(or\s+for|for|otherwise)(?=\s|$)\s*(.*)$/i.exec(said);
    const keyword = said === '' ? 'end' : words?.[1]?.toLowerCase().replace(/\s+/, ' ');
    if (keyword === undefined) {
      const [word = ''] = said.split(/\s/);
      return stop(
        line,
        whole.indexOf(said) + 1,
        `“${word}” begins no region. Write :::for, :::or for, :::otherwise or :::`,
      );
    }
    const condition = words?.[2] ?? '';
    const region = open.at(-1);
    if (keyword === 'for') {
      regions += 1;
      if (open.length >= DEEPEST_REGION)
        return stop(
          line,
          1,
          `Regions stand in each other more than ${DEEPEST_REGION} deep here. Take some apart.`,
        );
      if (regions > MOST_REGIONS)
        return stop(line, 1, `A text has at most ${MOST_REGIONS} regions. Make sections of some.`);
      flush();
    } else if (!region) {
      return stop(
        line,
        1,
        `There is no region open here for “:::${said}”. Begin one with :::for and a condition.`,
      );
    } else flush();
    switch (keyword) {
      case 'for':
      case 'or for': {
        if (keyword === 'or for' && region?.last)
          return stop(line, 1, 'Nothing comes after :::otherwise but the end. Move this case above it.');
        const parsed =
          condition === ''
            ? { message: 'Say who it is for: a condition like “signed in” belongs behind it.', column: 1 }
            : parsedOrProblem(condition, vocabulary, ofShared);
        if ('message' in parsed) {
          // Before a region has begun, what stands above it is whole.
          return stop(line, whole.length - condition.length + parsed.column, parsed.message);
        }
        const entry = { when: parsed.condition, pieces: [] as Piece[] };
        if (keyword === 'or for' && region) {
          region.cases.push(entry);
          region.into = entry.pieces;
        } else open.push({ line, path: pathIn(into()), cases: [entry], last: null, into: entry.pieces });
        break;
      }
      case 'otherwise':
        if (condition !== '')
          return stop(
            line,
            whole.indexOf(condition) + 1,
            'Nothing stands behind :::otherwise. For another condition write :::or for',
          );
        if (region?.last)
          return stop(line, 1, 'This region has an :::otherwise already. Take one of them out.');
        if (region) {
          region.last = [];
          region.into = region.last;
        }
        break;
      default: {
        open.pop();
        if (region)
          into().push({ kind: 'region', path: region.path, cases: region.cases, last: region.last ?? [] });
      }
    }
  }
  const unclosed = open[0];
  if (unclosed)
    return stop(
      open.at(-1)?.line ?? unclosed.line,
      1,
      'This region is never closed. Write ::: where it ends.',
    );
  flush();
  return { pieces: top, problem: null };
}

function parsedOrProblem(
  text: string,
  vocabulary: Vocabulary,
  ofShared: boolean,
): { readonly condition: Condition } | { readonly message: string; readonly column: number } {
  const parsed = parseCondition(text, vocabulary);
  if (!parsed.ok) return { message: parsed.error.message, column: parsed.error.column };
  const whole = expanded(parsed.condition, vocabulary.audiences);
  return !ofShared && testsIn(whole).some(asksOfItem)
    ? {
        message: 'A region is for people: it can’t ask about the item, nor can an audience in it.',
        column: 1,
      }
    : { condition: parsed.condition };
}

/** The texts of the pieces that are shown where conditions hold or don't, in order. */
export function shownIn(
  pieces: readonly Piece[],
  holds: (condition: Condition) => boolean,
): readonly Extract<Piece, { kind: 'text' }>[] {
  return pieces.flatMap((piece) => {
    if (piece.kind === 'text') return [piece];
    const chosen = piece.cases.find(({ when }) => holds(when));
    return shownIn(chosen?.pieces ?? piece.last, holds);
  });
}

/** Every text of the pieces, shown or not. */
export const textsIn = (pieces: readonly Piece[]): readonly Extract<Piece, { kind: 'text' }>[] =>
  pieces.flatMap((piece) =>
    piece.kind === 'text'
      ? [piece]
      : [...piece.cases.flatMap((one) => textsIn(one.pieces)), ...textsIn(piece.last)],
  );

/** Every condition of a text's regions. */
export const conditionsIn = (pieces: readonly Piece[]): readonly Condition[] =>
  pieces.flatMap((piece) =>
    piece.kind === 'text'
      ? []
      : [
          ...piece.cases.flatMap((one) => [one.when, ...conditionsIn(one.pieces)]),
          ...conditionsIn(piece.last),
        ],
  );

/** The same text with each condition of its regions as another, written by name or by id. What can't be read stays. */
export const changeRegions = (
  text: string,
  vocabulary: Vocabulary,
  calling: Calling,
  change: (condition: Condition) => Condition,
): string =>
  text
    .split('\n')
    .map((line) => {
      const found = /^(:::(?:or\s+)?for\s+)(.*?)(\r?)$/i.exec(line);
      if (!found) return line;
      const [, head = '', condition = '', tail = ''] = found;
      const parsed = parseCondition(condition, vocabulary);
      return parsed.ok ? head + printCondition(change(parsed.condition), vocabulary, calling) + tail : line;
    })
    .join('\n');

/**
 * The same text with the conditions of its regions written anew: by ids, which is how they are kept, so that a new name of
 * a group changes no text; or by the names of the day.
 */
export const renameRegions = (text: string, vocabulary: Vocabulary, calling: Calling): string =>
  changeRegions(text, vocabulary, calling, (condition) => condition);
