import { createHash, type Hash } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { open } from 'node:fs/promises';
import { Transform } from 'node:stream';
import { finished } from 'node:stream/promises';
import { harmlessLine, exportCell, type ExportRow } from '@sieve/core';
import type { ExportLayout } from '@sieve/contract';

/** Writes one file of an export. @returns the SHA-256 of what was given to the disk, in hex */
export const writeFileOf = (file: string, layout: ExportLayout, rows: ExportRow[]): Promise<string> =>
  (layout.form === 'csv' ? writeCsv : writeWorkbook)(file, layout, rows);

/** CSV (RFC 4180) in UTF-8 with a byte order mark, so that spreadsheets read it rightly; dangerous cells made harmless. */
async function writeCsv(file: string, layout: ExportLayout, rows: ExportRow[]): Promise<string> {
  const hash = createHash('sha256');
  const handle = await open(file, 'w');
  const write = async (text: string) => {
    hash.update(text);
    await handle.writeFile(text);
  };
  try {
    await write('\uFEFF' + harmlessLine(layout.columns.map(({ heading }) => heading)));
    for (let from = 0; from < rows.length; from += 1000) {
      const lines = rows
        .slice(from, from + 1000)
        .map((row) => harmlessLine(layout.columns.map(({ field }) => exportCell(row, field))));
      await write(lines.join(''));
    }
    await handle.sync();
  } finally {
    await handle.close();
  }
  return hash.digest('hex');
}

/** A workbook of text cells: a text cell is never run as a formula. */
async function writeWorkbook(file: string, layout: ExportLayout, rows: ExportRow[]): Promise<string> {
  const { default: ExcelJS } = await import('exceljs');
  const hash = createHash('sha256');
  const out = hashing(hash);
  const disk = createWriteStream(file, { flush: true });
  const written = finished(out.pipe(disk));
  // What the disk refuses ends the writing of the book too.
  disk.on('error', (error) => out.destroy(error));
  const book = new ExcelJS.stream.xlsx.WorkbookWriter({ stream: out, useSharedStrings: false, useStyles: true });
  const sheet = book.addWorksheet('Contacts', { views: [{ state: 'frozen', ySplit: 1 }] });
  sheet.columns = layout.columns.map(() => ({ width: 22 }));
  const head = sheet.addRow(layout.columns.map(({ heading }) => heading));
  head.font = { bold: true };
  head.commit();
  for (const row of rows) sheet.addRow(layout.columns.map(({ field }) => exportCell(row, field))).commit();
  await Promise.all([book.commit(), written]);
  return hash.digest('hex');
}

const hashing = (hash: Hash) =>
  new Transform({
    transform(chunk: Buffer, _, done) {
      hash.update(chunk);
      done(null, chunk);
    },
  });

/** The SHA-256 of a file as it lies on the disk, in hex. */
export async function hashOnDisk(file: string): Promise<string> {
  const hash = createHash('sha256');
  for await (const chunk of createReadStream(file)) hash.update(chunk as Buffer);
  return hash.digest('hex');
}
