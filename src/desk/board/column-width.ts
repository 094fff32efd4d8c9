/** How wide the board's columns are, in pixels. */

export const FIRST_COLUMN = 300;
export const LAST_COLUMN = 44;
const WIDEST = 90;
const NARROWEST = 44;
/** Below this a name no longer fits across, and slants. */
const SLANTED_BELOW = 76;

/**
 * The columns of visitors get narrower until all of them fit beside titles that can be read; the first column takes what is
 * left. Below the narrowest, the board scrolls sideways.
 */
export function columnWidths(board: number, visitors: number) {
  const fitting = Math.floor((board - FIRST_COLUMN - LAST_COLUMN) / Math.max(1, visitors));
  const column = Math.min(WIDEST, Math.max(NARROWEST, fitting));
  return {
    column,
    slanted: column < SLANTED_BELOW,
    first: Math.max(FIRST_COLUMN, board - visitors * column - LAST_COLUMN),
  };
}
