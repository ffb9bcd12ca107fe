import type { Readable } from 'node:stream';
import { LONGEST_CELL, type RawRow } from '@sieve/core';
import { MOST_CELLS } from './read-workbook';
import { attribute, hear, hearAll } from './xml';
import type { Parts } from './zip';

/** The last row of a sheet; what is said to be repeated beyond it is not there. */
const MOST_ROWS = 1_048_576;
const ROWS_AT_ONCE = 500;

const CONTENT = 'content.xml';
/** What the first part of an OpenDocument spreadsheet says (OpenDocument 1.3, part 2, 3.3). */
export const ODS_TYPE = 'application/vnd.oasis.opendocument.spreadsheet';

export const isOds = (parts: Parts): boolean => parts.has(CONTENT) && !parts.has('[content_types].xml');

/** The names of the sheets. */
export async function odsSheets(parts: Parts): Promise<string[]> {
  const names: string[] = [];
  let depth = 0;
  await hearAll(await parts.read(CONTENT), {
    open(tag, attributes) {
      // A table within a cell is no sheet.
      if (tag === 'table' && depth++ === 0) names.push(attribute(attributes, 'name') ?? '');
    },
    close: (tag) => void (tag === 'table' && depth--),
  });
  return names;
}

/** The rows of one sheet (OpenDocument 1.3, part 3, chapter 9): cells by what they are, not by how they are shown. */
export async function* odsRows(parts: Parts, sheet: string): AsyncGenerator<RawRow[]> {
  const reader = rowReader(sheet);
  const stream: Readable = await parts.read(CONTENT);
  try {
    for await (const _ of hear(stream, reader.heard)) {
      void _;
      if (reader.rows.length >= ROWS_AT_ONCE) yield reader.rows.splice(0);
      if (reader.isOver()) break;
    }
  } catch {
    reader.rows.push({
      line: reader.line() + 1,
      cells: ['the sheet breaks off here, or is damaged'],
      problem: 'sheet-cut',
    });
  }
  yield reader.rows;
}

function rowReader(sheet: string) {
  const rows: RawRow[] = [];
  let [tables, line, repeated, within, over] = [0, 0, 1, false, false];
  let cells: string[] = [];
  let cell: { value: string | null; repeated: number } | null = null;
  let text = '';
  let paragraphs = 0;
  let [saying, aside] = [0, 0];

  const add = (more: string) => {
    // One character more than a cell may have is enough to know that it has too many.
    if (text.length <= LONGEST_CELL) text += more.slice(0, LONGEST_CELL + 1);
  };
  const count = (attributes: Record<string, string>, name: string) =>
    Math.max(1, Number(attribute(attributes, name)) || 1);

  function endCell() {
    const said = cell!.value ?? text;
    const times = said === '' ? cell!.repeated : Math.min(cell!.repeated, MOST_CELLS - cells.length);
    if (said === '' && cells.length + times > MOST_CELLS) return;
    for (let i = 0; i < times; i++) cells.push(said);
  }

  function endRow() {
    while (cells.length > 0 && cells.at(-1) === '') cells.pop();
    const times = cells.length === 0 ? 0 : Math.min(repeated, MOST_ROWS - line);
    for (let i = 0; i < times; i++) rows.push({ line: line + 1 + i, cells: [...cells] });
    line += repeated;
  }

  return {
    rows,
    line: () => line,
    isOver: () => over,
    heard: {
      open(tag: string, attributes: Record<string, string>) {
        if (tag === 'table' && tables++ === 0)
          within = !over && (sheet === '' || attribute(attributes, 'name') === sheet);
        if (!within) return;
        if (tag === 'annotation') aside++;
        else if (tag === 'table-row') {
          cells = [];
          repeated = count(attributes, 'number-rows-repeated');
        } else if (tag === 'table-cell' || tag === 'covered-table-cell') {
          cell = { value: valueOf(attributes), repeated: count(attributes, 'number-columns-repeated') };
          text = '';
          paragraphs = 0;
        } else if (tag === 'p' && cell && aside === 0) {
          saying++;
          if (paragraphs++ > 0) add('\n');
        } else if (saying > 0 && tag === 's') add(' '.repeat(Math.min(1000, count(attributes, 'c'))));
        else if (saying > 0 && tag === 'tab') add('\t');
        else if (saying > 0 && tag === 'line-break') add('\n');
      },
      text(more: string) {
        if (saying > 0 && aside === 0) add(more);
      },
      close(tag: string) {
        if (tag === 'table' && --tables === 0 && within) {
          within = false;
          over = true;
        }
        if (!within) return;
        if (tag === 'annotation') aside--;
        else if (tag === 'p' && saying > 0) saying--;
        else if ((tag === 'table-cell' || tag === 'covered-table-cell') && cell) {
          endCell();
          cell = null;
        } else if (tag === 'table-row') endRow();
      },
    },
  };
}

/** What a cell is by its attributes; null: its text says it. */
function valueOf(attributes: Record<string, string>): string | null {
  const value = (name: string) => attribute(attributes, name) ?? null;
  switch (attribute(attributes, 'value-type')) {
    case 'float':
    case 'percentage':
    case 'currency':
      return value('value');
    case 'date':
      return (
        value('date-value')
          ?.replace(/T00:00:00(\.0+)?$/, '')
          .replace('T', ' ') ?? null
      );
    case 'time':
      return value('time-value')?.replace(/^PT(\d+)H(\d+)M(\d+)(?:[.,]\d+)?S$/, '$1:$2:$3') ?? null;
    case 'boolean':
      return value('boolean-value');
    default:
      return null;
  }
}
