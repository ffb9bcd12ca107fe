import { join } from 'node:path';
import { harmlessLine, widthOf, type Column, type RawRow } from '@sieve/core';
import { ISSUE_WORDS, type Format } from '@sieve/contract';
import type { Db } from '../db/open';
import { openLines, type sourceById } from './store';
import { tableRows } from './table/read-table';

const WHAT = 'What happened';
const lineName = (sourceId: number) => `Gap line of source ${sourceId}`;
const LINE_NAME = /^Gap line of source (\d+)$/;

/** Columns that only say which row of a source is mended: they are nobody's. */
export const isOfGap = (name: string): boolean => LINE_NAME.test(name) || name === WHAT;

/** The source whose gap a table closes, and the column that says the lines; null for any other table. */
export function gapIn(columns: readonly Column[]): { sourceId: number; column: number } | null {
  const column = columns.findIndex(({ name }) => LINE_NAME.test(name));
  return column < 0 ? null : { sourceId: Number(LINE_NAME.exec(columns[column]!.name)![1]), column };
}

/**
 * The rows of a source that could not be read, as a table to be mended: read again from its file, whole, each with its line and what
 * happened. Brought in again, it closes the gap.
 */
export async function gapTable(
  db: Db,
  source: NonNullable<ReturnType<typeof sourceById>>,
  dataDir: string,
): Promise<string> {
  const { id, name, origin, columns, file } = source;
  const open = openLines(db, source);
  const width = widthOf(columns);
  const rows: string[][] = [];
  // Only what is read from a file can have a gap.
  for await (const some of tableRows(join(dataDir, 'uploads', file), origin as Format, name))
    for (const row of some) {
      const code = open.get(row.line);
      if (code !== undefined) rows.push([String(row.line), ISSUE_WORDS[code], ...cellsOf(row, width)]);
    }
  const header = [lineName(id), WHAT, ...columns.slice(0, width).map((column) => column.name)];
  return `\uFEFF${[header, ...rows].map(harmlessLine).join('')}`;
}

/** What goes over the width stays in the last column, to be seen. */
const cellsOf = ({ cells }: RawRow, width: number): string[] =>
  cells.length <= width ? cells : [...cells.slice(0, width - 1), cells.slice(width - 1).join(' | ')];
