import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { mkdir, open, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { csvLine, exportBatches, exportCell, harmless, type ExportBatch, type ExportRow } from '@sieve/core';
import type { ExportLayout, ExportRun } from '@sieve/contract';
import { jobRow } from '../jobs/store';
import { leave } from '../register/register';
import type { RunHandler } from '../runs/context';
import { chosenContacts, leavingEntries, toExportRow, type ChosenContact } from './chosen';
import { exportById, finishExport } from './store';

/** Writes the files of an export and its manifest, then remembers who left. Stopped, it writes the files anew. */
export const runExport: RunHandler<'export'> = async ({ db, jobId, input, dataDir, progress, signal }) => {
  const { exportId } = input;
  const { layout, at } = exportById(db, exportId)!;
  const job = jobRow(db, jobId)!;
  const chosen = chosenContacts(db, jobId, layout, at);
  const dir = join(dataDir, 'exports', String(exportId));
  await mkdir(dir, { recursive: true });
  const date = new Date(at).toISOString().slice(0, 10);
  const parts = exportBatches(chosen.length, layout.rowsEach, layout.pattern, layout.form, { job: job.name, date });
  const files: ExportRun['files'] = [];
  for (const part of parts) {
    signal.throwIfAborted();
    const rows = chosen.slice(part.from, part.from + part.rows);
    const file = join(dir, part.name);
    await (layout.form === 'csv' ? writeCsv : writeWorkbook)(file, layout, rows.map(toExportRow));
    files.push({ name: part.name, rows: part.rows, sha256: await sha256(file) });
    progress(part.from + part.rows, chosen.length);
  }
  await writeFile(join(dir, 'manifest.json'), manifest(exportId, job.name, at, layout, parts, files, chosen));
  leave(db.register, exportId, finishExport(db, exportId, leavingEntries(chosen), files));
  return { code: 'exported', rows: chosen.length, files: files.length };
};

/** CSV (RFC 4180) in UTF-8 with a byte order mark, so that spreadsheets read it rightly; dangerous cells made harmless. */
async function writeCsv(file: string, layout: ExportLayout, rows: ExportRow[]): Promise<void> {
  const handle = await open(file, 'w');
  try {
    await handle.write('\uFEFF' + csvLine(layout.columns.map(({ heading }) => harmless(heading))) + '\r\n');
    for (let from = 0; from < rows.length; from += 1000) {
      const lines = rows
        .slice(from, from + 1000)
        .map((row) => csvLine(layout.columns.map(({ field }) => harmless(exportCell(row, field)))) + '\r\n');
      await handle.write(lines.join(''));
    }
  } finally {
    await handle.close();
  }
}

/** A workbook of text cells: a text cell is never run as a formula. */
async function writeWorkbook(file: string, layout: ExportLayout, rows: ExportRow[]): Promise<void> {
  const { default: ExcelJS } = await import('exceljs');
  const book = new ExcelJS.stream.xlsx.WorkbookWriter({ filename: file, useSharedStrings: false, useStyles: true });
  const sheet = book.addWorksheet('Contacts', { views: [{ state: 'frozen', ySplit: 1 }] });
  sheet.columns = layout.columns.map(() => ({ width: 22 }));
  const head = sheet.addRow(layout.columns.map(({ heading }) => heading));
  head.font = { bold: true };
  head.commit();
  for (const row of rows) sheet.addRow(layout.columns.map(({ field }) => exportCell(row, field))).commit();
  await book.commit();
}

async function sha256(file: string): Promise<string> {
  const hash = createHash('sha256');
  for await (const chunk of createReadStream(file)) hash.update(chunk as Buffer);
  return hash.digest('hex');
}

function manifest(
  id: number,
  job: string,
  at: number,
  layout: ExportLayout,
  parts: ExportBatch[],
  files: ExportRun['files'],
  chosen: ChosenContact[],
): string {
  const people = (part: ExportBatch) =>
    chosen.slice(part.from, part.from + part.rows).map(({ id: contact, recordIds, person, verdict }) => ({
      contact,
      records: recordIds,
      email: person.email,
      verdict,
    }));
  return JSON.stringify(
    {
      export: id,
      job,
      at: new Date(at).toISOString(),
      layout,
      files: files.map((file, i) => ({ ...file, contacts: people(parts[i]!) })),
    },
    null,
    1,
  );
}
