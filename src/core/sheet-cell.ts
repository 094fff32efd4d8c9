/** Keeps a spreadsheet from running a cell of a CSV file. A plain number is one, whatever it begins with. */
export const neutralised = (cell: string): string =>
  /^'*[=+\-@\t\r]/.test(cell) && !/^-?\d+([.,]\d+)?$/.test(cell) ? `'${cell}` : cell;
