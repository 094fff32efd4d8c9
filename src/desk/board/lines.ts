/** The lines of the board's table: rows, and the headings between them. Each is as high as any other. */
import type { Row } from './rows';

export type Line =
  | { readonly kind: 'heading'; readonly text: string }
  | { readonly kind: 'row'; readonly row: Row; readonly index: number };

/** In pixels. */
export const LINE_HEIGHT = 31;

/** Rows with their headings between them. */
export function linesOf(rows: readonly Row[]): readonly Line[] {
  const lines: Line[] = [];
  let last: string | null = null;
  for (const [index, row] of rows.entries()) {
    if (row.heading !== null && row.heading !== last) lines.push({ kind: 'heading', text: row.heading });
    last = row.heading;
    lines.push({ kind: 'row', row, index });
  }
  return lines;
}
