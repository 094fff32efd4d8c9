/** Cells of a CSV file (RFC 4180) that no spreadsheet runs, and that no reader takes apart in another place. */

const LINES = /(\r\n|\r|\n)/;
const RUN = /^'*[=+\-@\t\r]/;

/** Keeps a spreadsheet from running a cell, at the start of every line in it. A plain number is one, whatever it begins with. */
export const neutralised = (cell: string): string =>
  /^-?\d+([.,]\d+)?$/.test(cell)
    ? cell
    : cell
        .split(LINES)
        .map((line) => (RUN.test(line) && !LINES.test(line) ? `'${line}` : line))
        .join('');

/** Takes away the apostrophes that {@link neutralised} put there. */
export const restored = (cell: string): string =>
  cell
    .split(LINES)
    .map((line) => (/^'+[=+\-@\t\r]/.test(line) ? line.slice(1) : line))
    .join('');

/**
 * How rows are written: lines as RFC 4180 ends them, and quotes around whatever some reader could take for the end of a
 * cell or a line.
 */
export const SHEET = { record_delimiter: '\r\n', quoted_match: /["\r\n,;\t]/ } as const;
