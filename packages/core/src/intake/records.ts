import type { RowIssue } from '../model/issue';
import type { RawRow } from './delimited';

/** The most characters a cell may hold: what a workbook cell holds (32,767, Microsoft's published limit). */
export const LONGEST_CELL = 32_767;

/** A row as it is kept: its line in the file and its cells, as many as there are columns or more. */
export interface RecordRow {
  line: number;
  cells: string[];
}

export interface ReadRows {
  records: RecordRow[];
  issues: RowIssue[];
  blank: number;
}

const TOTAL =
  /^\s*(grand |sub-?)?(total|sum|summe|gesamt|insgesamt|somme|suma|totale?|totaal|iomlán)\b[\s:.]*([\d.,\s]*)$/iu;
const FIGURE = /^[\s\d.,%£$€-]*$/;

/** A row that sums the others up: a word for it, and besides it figures at most. */
function isTotal(cells: readonly string[]): boolean {
  const filled = cells.filter((cell) => cell.trim() !== '');
  return (
    filled.length > 0 &&
    filled.length <= 4 &&
    TOTAL.test(filled[0]!) &&
    filled.slice(1).every((cell) => FIGURE.test(cell))
  );
}

/**
 * Turns raw rows into records. Rows in = records + blank + issues that were not kept.
 *
 * A row with too many or too few cells comes in and is noted; one with an endless cell, or with a quote that
 * was not closed and a width that does not fit, stays out and is listed.
 */
export function toRecords(rows: readonly RawRow[], width: number): ReadRows {
  const out: ReadRows = { records: [], issues: [], blank: 0 };
  for (const { line, cells, problem } of rows) {
    const blank = cells.every((cell) => cell.trim() === '');
    if (blank && !problem) {
      out.blank++;
      continue;
    }
    const issue = (code: RowIssue['code'], kept: boolean, input: string, field = '') =>
      out.issues.push({ line, code, kept, field, input: input.slice(0, 300) });
    const long = cells.findIndex((cell) => cell.length > LONGEST_CELL);
    if (long >= 0) {
      issue('cell-too-long', false, cells[long]!, String(long + 1));
      continue;
    }
    if (
      problem === 'sheet-cut' ||
      problem === 'row-too-long' ||
      problem === 'record-unreadable' ||
      (problem && blank)
    ) {
      issue(problem, false, cells.join(' | '));
      continue;
    }
    if (problem === 'quote-not-closed') {
      const fits = cells.length === width;
      issue(problem, fits, cells.join(' | '));
      if (!fits) continue;
    } else if (problem) {
      issue(problem, true, cells.join(' | '));
    }
    if (isTotal(cells)) issue('looks-like-a-total', true, cells.filter(Boolean).join(' | '));
    if (cells.length > width && cells.slice(width).some((cell) => cell.trim() !== '')) {
      issue('too-many-cells', true, cells.slice(width).join(' | '));
    } else if (cells.length < width && !problem) {
      issue('too-few-cells', true, cells.join(' | '));
    }
    if (cells.some((cell) => cell.includes('\uFFFD'))) issue('undecodable-characters', true, cells.join(' | '));
    out.records.push({
      line,
      cells: cells.length < width ? [...cells, ...Array<string>(width - cells.length).fill('')] : cells,
    });
  }
  return out;
}
