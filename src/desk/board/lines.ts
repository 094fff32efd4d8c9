/** The lines of the board's table: rows, and the headings between them. Each is as high as any other. */
import type { Row } from './rows';

export type Line =
  | { readonly kind: 'heading'; readonly text: string }
  | { readonly kind: 'row'; readonly row: Row; readonly index: number };

/** In pixels. */
export const LINE_HEIGHT = 31;

/** Rows with their headings between them. Where rows were filtered, a heading stands as long as anything of it is left. */
export function linesOf(rows: readonly Row[], all: readonly Row[] = rows): readonly Line[] {
  const headings = new Map<Row['item']['id'], string | null>();
  let current: string | null = null;
  for (const { item, depth, heading } of all) {
    if (depth === 0) current = heading ?? (item.kind === 'post' || item.kind === 'file' ? current : null);
    headings.set(item.id, current);
  }
  const lines: Line[] = [];
  let last: string | null = null;
  for (const [index, row] of rows.entries()) {
    const heading = headings.get(row.item.id) ?? null;
    if (heading !== null && heading !== last) lines.push({ kind: 'heading', text: heading });
    last = heading;
    lines.push({ kind: 'row', row, index });
  }
  return lines;
}
