import Papa from 'papaparse';

export type Cell = string | number | boolean | null;

/**
 * A table as CSV. A text that a spreadsheet would take for a formula gets a quote before it, as spreadsheets themselves mark a
 * text. Source: OWASP, CSV injection (from memory).
 */
export const writeCsv = (rows: readonly (readonly Cell[])[]): string =>
  Papa.unparse(rows.map((row) => row.map(shielded)));

const shielded = (cell: Cell): Cell =>
  typeof cell === 'string' && /^'*[=+\-@\t\r]/.test(cell) ? `'${cell}` : cell;

/** A text of such a table as it was. */
export const unshielded = (text: string): string => (/^'+[=+\-@\t\r]/.test(text) ? text.slice(1) : text);
