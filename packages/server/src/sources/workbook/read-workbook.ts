import { stat } from 'node:fs/promises';
import { LONGEST_CELL, type RawRow } from '@sieve/core';
import { AppError } from '../../errors';
import { readBook, textOf, unescaped, type Book } from './book';
import { columnOf, dateText, numberText } from './cells';
import { attribute, hear } from './xml';
import { isOds, odsRows, odsSheets } from './ods';
import { broken, openParts, type Parts } from './zip';

const ROWS_AT_ONCE = 500;
/** The columns of a sheet, A to XFD. */
export const MOST_CELLS = 16_384;

/**
 * The rows of one sheet, some hundred at a time, as a delimited file would give them; `line` is the row's number. A cell that
 * cannot be read spoils its row's cell, never the file; where the sheet breaks off, a last row says so.
 *
 * @param sheet its name; empty: the first
 * @param onSheets the names of all sheets
 */
export async function* workbookRows(
  file: string,
  name: string,
  sheet: string,
  onSheets: (names: string[]) => void = () => undefined,
): AsyncGenerator<RawRow[]> {
  const parts = await openParts(file, name, (await stat(file)).size);
  try {
    if (isOds(parts)) {
      yield* openDocument(parts, name, sheet, onSheets);
      return;
    }
    const book = await readBook(parts, name);
    onSheets(book.sheets.map((known) => known.name));
    const wanted = sheet === '' ? book.sheets[0] : book.sheets.find((known) => known.name === sheet);
    if (!wanted) throw new AppError('broken-workbook', { name, detail: `it has no sheet ${sheet}` });
    yield* sheetRows(await parts.read(wanted.part), book);
  } finally {
    parts.close();
  }
}

async function* openDocument(
  parts: Parts,
  name: string,
  sheet: string,
  onSheets: (names: string[]) => void,
): AsyncGenerator<RawRow[]> {
  const names = await odsSheets(parts).catch((error: Error) => {
    throw broken(name, error);
  });
  onSheets(names);
  if (names.length === 0) throw broken(name, new Error('it holds no sheet'));
  if (sheet !== '' && !names.includes(sheet)) throw broken(name, new Error(`it has no sheet ${sheet}`));
  yield* odsRows(parts, sheet);
}

async function* sheetRows(stream: Parameters<typeof hear>[0], book: Book): AsyncGenerator<RawRow[]> {
  const reader = sheetReader(book);
  try {
    for await (const _ of hear(stream, reader.heard)) {
      void _;
      if (reader.rows.length >= ROWS_AT_ONCE) yield reader.rows.splice(0);
    }
    if (book.damaged) reader.rows.push(cut(reader.line() + 1));
  } catch {
    reader.rows.push(cut(reader.line() + 1));
  }
  yield reader.rows;
}

const cut = (line: number): RawRow => ({
  line,
  cells: ['the sheet breaks off here, or is damaged'],
  problem: 'sheet-cut',
});

/** Gathers rows from what is heard of a sheet. Rows and cells without a reference stand behind the one before (18.3.1.4, 18.3.1.73). */
function sheetReader({ strings, dates, from1904 }: Book) {
  const rows: RawRow[] = [];
  let line = 0;
  let cells: string[] = [];
  let problem: RawRow['problem'];
  let column = -1;
  let type = '';
  let isDate = false;
  let value = '';
  let inValue = false;
  const inline = textOf('is', (whole) => put(whole));

  function put(text: string) {
    if (column < MOST_CELLS) {
      while (cells.length < column) cells.push('');
      cells[column] = text;
    } else problem = 'cell-unreadable';
  }

  function valueText(): string {
    if (type === 's') {
      const text = strings[Number(value)];
      if (text === undefined) problem = 'cell-unreadable';
      return text ?? '';
    }
    if (type === 'b') return value === '1' ? 'true' : 'false';
    if (type === 'str' || type === 'e') return unescaped(value);
    if (type === 'd') return value.endsWith('T00:00:00') ? value.slice(0, 10) : value;
    return isDate ? dateText(value, from1904) : numberText(value);
  }

  return {
    rows,
    line: () => line,
    heard: {
      open(tag: string, attributes: Record<string, string>) {
        if (tag === 'row') {
          line = Number(attribute(attributes, 'r')) || line + 1;
          cells = [];
          problem = undefined;
          column = -1;
        } else if (tag === 'c') {
          column = columnOf(attribute(attributes, 'r') ?? '') ?? column + 1;
          type = attribute(attributes, 't') ?? 'n';
          isDate = dates[Number(attribute(attributes, 's') ?? -1)] ?? false;
          value = '';
        } else if (tag === 'v') inValue = true;
        inline.open(tag);
      },
      text(text: string) {
        // As in `textOf`: more than a cell may have is only told.
        if (inValue && value.length <= LONGEST_CELL) value += text.slice(0, LONGEST_CELL + 1);
        if (!inValue) inline.text(text);
      },
      close(tag: string) {
        if (tag === 'v') inValue = false;
        else if (tag === 'c' && type !== 'inlineStr' && value !== '') put(valueText());
        else if (tag === 'row') rows.push({ line, cells, ...(problem && { problem }) });
        inline.close(tag);
      },
    },
  };
}
