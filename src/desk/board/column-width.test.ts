import { expect, it } from 'vitest';
import { columnWidths, FIRST_COLUMN, LAST_COLUMN } from './column-width';

// The board beside the workbench on a screen 1280 pixels wide.
const BESIDE = 816;

it('gives a few visitors room for their names, and titles the rest', () => {
  expect(columnWidths(BESIDE, 3)).toEqual({ column: 90, slanted: false, first: 502 });
});

it('fits ten visitors beside the workbench, with slanted names', () => {
  const { column, slanted, first } = columnWidths(BESIDE, 10);
  expect(slanted).toBe(true);
  expect(first).toBeGreaterThanOrEqual(FIRST_COLUMN);
  expect(first + 10 * column + LAST_COLUMN).toBeLessThanOrEqual(BESIDE);
});

it('scrolls sideways rather than squeezing more in', () => {
  const { column, first } = columnWidths(BESIDE, 40);
  expect(column).toBe(44);
  expect(first).toBe(FIRST_COLUMN);
});

it('gives titles everything with nobody on the board', () => {
  expect(columnWidths(BESIDE, 0)).toEqual({ column: 90, slanted: false, first: BESIDE - LAST_COLUMN });
});
