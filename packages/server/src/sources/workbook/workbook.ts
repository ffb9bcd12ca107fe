import type { CellValue } from 'exceljs';
import { open as openZip, type Entry, type ZipFile } from 'yauzl';
import type { RawRow } from '@sieve/core';
import { AppError } from '../../errors';

/** What a workbook may unpack to. A larger one is a mistake or a trap. */
const MOST_BYTES = 512 * 1024 * 1024;
const MOST_RATIO = 200;

/**
 * Unpacks every part of a workbook once without keeping anything, counting what really comes out (the sizes that a zip
 * states may lie), and throws when it is no zip or unpacks to too much.
 */
export async function checkWorkbook(file: string, name: string, packedBytes: number): Promise<void> {
  const zip = await new Promise<ZipFile>((resolve, reject) =>
    openZip(file, { lazyEntries: true, autoClose: false }, (error, opened) =>
      error ? reject(broken(name, error)) : resolve(opened),
    ),
  );
  const limit = Math.min(MOST_BYTES, Math.max(packedBytes * MOST_RATIO, 16 * 1024 * 1024));
  let total = 0;
  let parts = 0;
  try {
    await new Promise<void>((resolve, reject) => {
      zip.on('error', (error: Error) => reject(broken(name, error)));
      zip.on('end', resolve);
      zip.on('entry', (entry: Entry) => {
        if (/^xl\/workbook\.xml$/i.test(entry.fileName)) parts++;
        if (total + entry.uncompressedSize > limit) return reject(tooLarge(name, limit));
        zip.openReadStream(entry, (error, stream) => {
          if (error) return reject(broken(name, error));
          stream.on('data', (chunk: Buffer) => {
            total += chunk.length;
            if (total > limit) {
              stream.destroy();
              reject(tooLarge(name, limit));
            }
          });
          stream.on('error', (e: Error) => reject(broken(name, e)));
          stream.on('end', () => zip.readEntry());
        });
      });
      zip.readEntry();
    });
  } finally {
    zip.close();
  }
  if (parts === 0) throw new AppError('broken-workbook', { name, detail: 'it holds no workbook' });
}

const tooLarge = (name: string, limit: number) =>
  new AppError('workbook-too-large', { name, limit: `${Math.round(limit / 1024 / 1024)} MB` });
const broken = (name: string, error: Error) =>
  error instanceof AppError ? error : new AppError('broken-workbook', { name, detail: error.message.slice(0, 80) });

/** The rows of one sheet, some hundred at a time, as a delimited file would give them; `line` is the row's number. */
export async function* workbookRows(
  file: string,
  sheet: string,
  onSheet: (name: string) => void,
): AsyncGenerator<RawRow[]> {
  const { default: ExcelJS } = await import('exceljs');
  const reader = new ExcelJS.stream.xlsx.WorkbookReader(file, {
    worksheets: 'emit',
    sharedStrings: 'cache',
    hyperlinks: 'ignore',
    styles: 'cache',
    entries: 'emit',
  });
  let taken = false;
  for await (const worksheet of reader) {
    const { name } = worksheet as unknown as { name: string };
    onSheet(name);
    const wanted: boolean = !taken && (sheet === '' || sheet === name);
    taken ||= wanted;
    let rows: RawRow[] = [];
    for await (const row of worksheet) {
      if (!wanted) continue;
      const cells: string[] = [];
      row.eachCell({ includeEmpty: true }, (cell, column) => (cells[column - 1] = cellText(cell.value)));
      rows.push({ line: row.number, cells: Array.from(cells, (cell) => cell ?? '') });
      if (rows.length === 500) {
        yield rows;
        rows = [];
      }
    }
    if (rows.length > 0) yield rows;
  }
}

/** A cell as text: dates as ISO days, formulas as their results, rich text and links as what is shown. */
export function cellText(value: CellValue): string {
  if (value === null || value === undefined) return '';
  if (value instanceof Date) {
    const iso = value.toISOString();
    return iso.endsWith('T00:00:00.000Z') ? iso.slice(0, 10) : iso.slice(0, 19).replace('T', ' ');
  }
  if (typeof value !== 'object') return String(value);
  if ('richText' in value) return value.richText.map((part) => part.text).join('');
  if ('result' in value || 'formula' in value || 'sharedFormula' in value)
    return cellText((value as { result?: CellValue }).result ?? null);
  if ('text' in value) return cellText(value.text);
  return 'error' in value ? String(value.error) : '';
}
