import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { dayOf, exportBatches, type ExportBatch } from '@sieve/core';
import { zoneOf, type ExportLayout, type ExportRun } from '@sieve/contract';
import { AppError } from '../errors';
import { jobRow } from '../jobs/store';
import { leave } from '../register/register';
import type { RunHandler } from '../runs/context';
import { chosenContacts, leavingEntries, toExportRow, type ChosenContact } from './chosen';
import { exportById, finishExport } from './store';
import { hashOnDisk, writeFileOf } from './write-files';

/** Writes the files of an export and its manifest, then remembers who left. Stopped, it writes the files anew. */
export const runExport: RunHandler<'export'> = async ({ db, jobId, input, settings, dataDir, progress, signal }) => {
  const { exportId } = input;
  const { layout, at } = exportById(db, exportId)!;
  const job = jobRow(db, jobId)!;
  const chosen = chosenContacts(db, jobId, layout, at);
  // Another export may have left since this one was asked for.
  if (chosen.length === 0) throw new AppError('nothing-to-export');
  const dir = join(dataDir, 'exports', String(exportId));
  await mkdir(dir, { recursive: true });
  const date = dayOf(at, zoneOf(settings));
  const parts = exportBatches(chosen.length, layout.rowsEach, layout.pattern, layout.form, { job: job.name, date });
  const files: ExportRun['files'] = [];
  for (const part of parts) {
    signal.throwIfAborted();
    const rows = chosen.slice(part.from, part.from + part.rows);
    const file = join(dir, part.name);
    files.push({ name: part.name, rows: part.rows, sha256: await writeFileOf(file, layout, rows.map(toExportRow)) });
    progress(part.from + part.rows, chosen.length);
  }
  for (const { name, sha256 } of files)
    if ((await hashOnDisk(join(dir, name))) !== sha256) throw new AppError('export-broken', { name });
  await writeFile(join(dir, 'manifest.json'), manifest(exportId, job.name, at, layout, parts, files, chosen));
  leave(db.register, exportId, finishExport(db, exportId, leavingEntries(chosen), files));
  return { code: 'exported', rows: chosen.length, files: files.length };
};

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
