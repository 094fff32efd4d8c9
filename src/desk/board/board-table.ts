/** The board as a table of texts, for spreadsheets: one line an item, one column a visitor. */
import { stringify } from 'csv-stringify/browser/esm/sync';
import { changesAt, nameOf, neutralised, outcomeAt, outcomeName, SHEET, type StandIn } from '@/core';
import type { Side } from '../view';
import type { Row } from './rows';
import type { BoardMatrix } from './use-matrix';

/** What a cell says: what is got, and in the difference what it was before. */
export function cellText({ matrix, rowOf }: BoardMatrix, row: Row, column: number, side: Side): string {
  const at = rowOf.get(row.item.id);
  if (at === undefined) return '';
  const draft = outcomeName(outcomeAt(matrix, 'draft', at, column));
  const live = outcomeName(outcomeAt(matrix, 'live', at, column));
  if (side === 'live') return live;
  if (side === 'draft' || !changesAt(matrix, at, column)) return draft;
  return draft === live ? `${draft} (changed)` : `${draft} (now ${live})`;
}

/** The rows as CSV (RFC 4180), with a byte order mark, so that spreadsheets read it as UTF-8. */
export function boardCsv(
  rows: readonly Row[],
  standIns: readonly StandIn[],
  decided: BoardMatrix,
  side: Side,
): string {
  const lines = [
    ['Kind', 'Title', 'Address', ...standIns.map(nameOf)],
    ...rows.map((row) => [
      row.item.kind,
      row.item.title,
      'address' in row.item ? row.item.address : '',
      ...standIns.map((_, column) => cellText(decided, row, column, side)),
    ]),
  ];
  return `﻿${stringify(
    lines.map((line) => line.map(neutralised)),
    SHEET,
  )}`;
}
