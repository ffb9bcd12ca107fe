/**
 * What makes a spreadsheet take a cell for a formula (OWASP, CSV Injection), full-width forms included, also behind blanks,
 * control characters and characters that are not seen (Unicode, Cc and Cf).
 */
const RUNS = /^[\s\p{Cc}\p{Cf}]*[=+\-@\t\r\n＝＋－＠]/u;
/** A phone in E.164 or a plain number starts like a formula but cannot do anything. */
const PLAIN = /^[+-]?\d[\d .,]*(;ext=\d+)?$/;

/** The cell with an apostrophe before it when a spreadsheet would run it, as OWASP advises. */
export const harmless = (cell: string): string => (RUNS.test(cell) && !PLAIN.test(cell) ? `'${cell}` : cell);

/** One line of CSV that a spreadsheet cannot run, with its line break. */
export const harmlessLine = (cells: readonly string[]): string => `${csvLine(cells.map(harmless))}\r\n`;

/** One line of CSV (RFC 4180), without its line break. */
export const csvLine = (cells: readonly string[]): string =>
  cells
    .map((cell) => (/[",\r\n]/.test(cell) || /^\s|\s$/.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell))
    .join(',');
