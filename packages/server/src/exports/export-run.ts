import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { mkdir, open, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { batches, csvLine, exportCell, harmless, type Batch, type ExportRow } from '@sieve/core';
import type { ExportLayout } from '@sieve/contract';
import { eq } from 'drizzle-orm';
import { chosenContacts, toExportRow, type ChosenContact } from './chosen';
import { jobRow } from '../jobs/store';
import { exportsTable } from '../db/schema';
import type { RunHandler } from '../runs/context';

/** Writes the files of an export and its manifest, then remembers who left. Stopped, it writes the files anew. */
export const runExport: RunHandler = async ({ db, jobId, input, dataDir, progress, signal }) => {
  const exportId = input['exportId']!;
  const { layout, at } = db.select().from(exportsTable).where(eq(exportsTable.id, exportId)).get()!;
  const job = jobRow(db, jobId)!;
  const chosen = chosenContacts(db, jobId, layout, at);
  const dir = join(dataDir, 'exports', String(exportId));
  await mkdir(dir, { recursive: true });
  const date = new Date(at).toISOString().slice(0, 10);
  const parts = batches(chosen.length, layout.rowsEach, layout.pattern, layout.form, { job: job.name, date });
  const files: { name: string; rows: number; sha256: string }[] = [];
  for (const part of parts) {
    signal.throwIfAborted();
    const rows = chosen.slice(part.from, part.from + part.rows);
    const file = join(dir, part.name);
    await (layout.form === 'csv' ? writeCsv : writeWorkbook)(file, layout, rows.map(toExportRow));
    files.push({ name: part.name, rows: part.rows, sha256: await sha256(file) });
    progress(part.from + part.rows, chosen.length);
  }
  await writeFile(join(dir, 'manifest.json'), manifest(exportId, job.name, at, layout, parts, files, chosen));
  db.$client
    .transaction(() => {
      const remember = db.$client.prepare(
        'INSERT OR IGNORE INTO export_rows (export_id, job_id, record_id, email) VALUES (?, ?, ?, ?)',
      );
      for (const contact of chosen)
        for (const record of contact.recordIds) remember.run(exportId, jobId, record, contact.person.email);
      db.update(exportsTable)
        .set({ state: 'done', rows: chosen.length, files })
        .where(eq(exportsTable.id, exportId))
        .run();
    })
    .immediate();
  return `${chosen.length.toLocaleString('en')} rows in ${files.length} ${files.length === 1 ? 'file' : 'files'}`;
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
  parts: Batch[],
  files: { name: string; rows: number; sha256: string }[],
  chosen: ChosenContact[],
): string {
  const people = (part: Batch) =>
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
