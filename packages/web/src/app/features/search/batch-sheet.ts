import { delimitedReader } from '@sieve/core/intake/delimited';
import { SUBJECTS, type Search } from '@sieve/core/model/search';
import { parseSearch } from '@sieve/core/search/parse';
import { SEARCH_ERROR_WORDS } from '@sieve/contract';

/** Batches as lines, or as rows copied from a spreadsheet. */
export interface BatchSheet {
  columns: string[];
  rows: { line: number; cells: string[] }[];
  /** The column whose cells begin like searches. */
  searchColumn: number;
}

const isSearch = (cell: string | undefined) => SUBJECTS.some((about) => cell?.trim().startsWith(`${about} where`));

export function readSheet(text: string): BatchSheet {
  const reader = delimitedReader('\t');
  const rows = [...reader.push(text), ...reader.end()].filter(({ cells }) => cells.join('').trim() !== '');
  const width = Math.max(1, ...rows.map(({ cells }) => cells.length));
  const hits = Array.from({ length: width }, (_, at) => rows.filter(({ cells }) => isSearch(cells[at])).length);
  const searchColumn = hits.indexOf(Math.max(...hits));
  const header = width > 1 && hits[searchColumn]! > 0 && !isSearch(rows[0]!.cells[searchColumn]) ? rows.shift() : null;
  const columns = Array.from({ length: width }, (_, at) => header?.cells[at]?.trim() || `Column ${at + 1}`);
  return { columns, rows, searchColumn };
}

/** @param kept columns whose cells go with each row that a batch brings */
export function batchesIn(
  { columns, rows }: BatchSheet,
  searchColumn: number,
  kept: ReadonlySet<number>,
  whole: Search,
): { batches: { search: Search; kept: Record<string, string> }[]; problem: string } {
  const batches: { search: Search; kept: Record<string, string> }[] = [];
  for (const { line, cells } of rows) {
    const { search, error } = parseSearch((cells[searchColumn] ?? '').trim(), whole.about);
    if (error)
      return { batches: [], problem: `Line ${line}: ${SEARCH_ERROR_WORDS[error.code].replace('{x}', error.input)}.` };
    const entries = [...kept].filter((at) => at !== searchColumn).map((at) => [columns[at]!, (cells[at] ?? '').trim()]);
    batches.push({ search, kept: Object.fromEntries(entries) as Record<string, string> });
  }
  return { batches, problem: '' };
}
