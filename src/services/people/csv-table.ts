/** CSV (RFC 4180) cut into records that know the line on which they begin, with what is wrong where it is. */
import { type CsvError, parse } from 'csv-parse';
import { yieldToOthers } from '../running';

/** Something wrong in a file. */
export interface CsvProblem {
  /** The line on which the record begins, counted from 1; the header is line 1. */
  readonly line: number;
  /** The column, counted from 1; 0 for the whole line. */
  readonly column: number;
  readonly message: string;
}

/** A record of a file. */
export interface Row {
  readonly line: number;
  readonly cells: readonly string[];
}

/** A file as records, as far as it could be read. */
export interface Table {
  /** Which characters its bytes stand for and what stands between its cells, in a sentence. */
  readonly readAs: string;
  readonly rows: readonly Row[];
  readonly problem: CsvProblem | null;
}

// So much is read before others get their turn.
const MOST_LINES = 250_000;
const PIECE = 32_768;

/** Cuts a file into rows, a piece at a time, so that other requests are answered meanwhile. */
export async function tableOf(file: string | Uint8Array): Promise<Table> {
  const { text: csv, encoding } =
    typeof file === 'string' ? { text: file, encoding: 'UTF-8' } : decoded(file);
  const separator = separatorOf(csv);
  const readAs = `Read as ${encoding}, with ${SEPARATORS[separator]} between cells.`;
  if (csv.includes('\0')) {
    const line = breaksIn(csv.slice(0, csv.indexOf('\0'))) + 1;
    const message =
      'A text holds the character NUL, which can’t be kept. Save the file as UTF-8, or take it out.';
    return { readAs, rows: [], problem: { line, column: 0, message } };
  }
  const rows: Row[] = [];
  let line = 1;
  const parser = parse({
    bom: true,
    raw: true,
    delimiter: separator,
    relax_column_count: true,
    on_record: (entry) => {
      const { record, raw } = entry as unknown as { readonly record: string[]; readonly raw: string };
      // The library counts breaks within quotes by a rule of its own, so lines are counted here.
      if (record.length > 1 || record[0] !== '') rows.push({ line, cells: record });
      line += breaksIn(raw);
      return null;
    },
  });
  const failed = new Promise<CsvError | null>((resolve) => {
    parser.once('error', resolve).once('end', () => resolve(null));
  });
  parser.resume();
  for (let at = 0; at < csv.length && !parser.destroyed && rows.length <= MOST_LINES; at += PIECE) {
    parser.write(csv.slice(at, at + PIECE));
    await yieldToOthers();
  }
  if (rows.length > MOST_LINES) {
    parser.destroy();
    const message = `A file has at most ${MOST_LINES} lines.`;
    return { readAs, rows, problem: { line, column: 0, message } };
  }
  if (!parser.destroyed) parser.end();
  const error = await failed;
  return { readAs, rows, problem: error && brokenQuotes(error, line) };
}

/**
 * What bytes say, and in which encoding. A byte order mark says it; without one, what is sound UTF-8 is that, and the rest
 * is what spreadsheets of western Europe write (Windows-1252, which has Latin-1 in it).
 */
function decoded(bytes: Uint8Array): { readonly text: string; readonly encoding: string } {
  const [first, second] = bytes;
  const as = (label: string, encoding: string) => ({ text: new TextDecoder(label).decode(bytes), encoding });
  if (first === 0xff && second === 0xfe) return as('utf-16le', 'UTF-16');
  if (first === 0xfe && second === 0xff) return as('utf-16be', 'UTF-16');
  // Without a mark: every other byte of the header is zero.
  if (first !== 0 && second === 0) return as('utf-16le', 'UTF-16');
  if (first === 0 && second !== 0) return as('utf-16be', 'UTF-16');
  try {
    return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), encoding: 'UTF-8' };
  } catch {
    return as('windows-1252', 'Windows-1252 (Latin-1)');
  }
}

const SEPARATORS = { ',': 'commas', ';': 'semicolons', '\t': 'tabs' } as const;

/** What stands between cells: whichever of them the first line has most of, outside quotes. */
function separatorOf(csv: string): keyof typeof SEPARATORS {
  const [header = ''] = /^(?:"(?:[^"]|"")*"|[^"\r\n])*/.exec(csv.slice(0, 100_000)) ?? [];
  const bare = header.replace(/"(?:[^"]|"")*"/g, '');
  const count = (one: string) => bare.split(one).length;
  const kinds = Object.keys(SEPARATORS) as (keyof typeof SEPARATORS)[];
  return kinds.reduce((best, one) => (count(one) > count(best) ? one : best));
}

/** How many lines a record ends, those within its quotes included. */
function breaksIn(raw: string): number {
  let count = 0;
  for (let at = 0; at < raw.length; at++) {
    const code = raw.charCodeAt(at);
    if (code === 10 || (code === 13 && raw.charCodeAt(at + 1) !== 10)) count += 1;
  }
  return count;
}

function brokenQuotes(error: CsvError, line: number): CsvProblem {
  const { column } = error as unknown as { readonly column?: unknown };
  const where = { line, column: typeof column === 'number' ? column + 1 : 0 };
  switch (error.code) {
    case 'CSV_QUOTE_NOT_CLOSED':
      return { ...where, message: 'The quotes that begin here do not end. Close them with ".' };
    case 'CSV_INVALID_CLOSING_QUOTE':
      return { ...where, message: 'After closing quotes comes a comma. Write "" for quotes inside.' };
    case 'INVALID_OPENING_QUOTE':
      return {
        ...where,
        message: 'Quotes begin inside a cell. Put the whole cell in quotes, and "" for each inside.',
      };
    default:
      return { ...where, message: `This can’t be read as CSV: ${error.message}` };
  }
}
