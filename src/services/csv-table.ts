/** CSV (RFC 4180) cut into records that know the line on which they begin, with what is wrong where it is. */
import { type CsvError, parse } from 'csv-parse';

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
  readonly rows: readonly Row[];
  readonly problem: CsvProblem | null;
}

// So much is read before others get their turn.
const MOST_LINES = 250_000;
const PIECE = 262_144;

/** Lets others have their turn. */
export const breath = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));

/** Cuts a text into rows, a piece at a time, so that other requests are answered meanwhile. */
export async function tableOf(csv: string): Promise<Table> {
  const rows: Row[] = [];
  let line = 1;
  const parser = parse({
    bom: true,
    raw: true,
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
    await breath();
  }
  if (rows.length > MOST_LINES) {
    parser.destroy();
    return { rows, problem: { line, column: 0, message: `A file has at most ${MOST_LINES} lines.` } };
  }
  if (!parser.destroyed) parser.end();
  const error = await failed;
  return { rows, problem: error && brokenQuotes(error, line) };
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
