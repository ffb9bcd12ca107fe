import { companyKey, dayOf, exportBatches, exportCell } from '@sieve/core';
import type { ExportLayout, ExportPreview } from '@sieve/contract';
import type { Db } from '../db/open';
import { theJob } from '../jobs/the-job';
import { exportCounts, toExportRow } from './chosen';

const FIRST = 12;

/** What an export would be: its first rows, its files, who is held back. */
export function exportPreview(db: Db, jobId: number, layout: ExportLayout, now: number, zone: string): ExportPreview {
  const job = theJob(db, jobId);
  const { chosen, ...counts } = exportCounts(db, jobId, layout, now);
  const words = { job: job.name, date: dayOf(now, zone) };
  const parts =
    chosen.length === 0 ? [] : exportBatches(chosen.length, layout.rowsEach, layout.pattern, layout.form, words);
  return {
    ...counts,
    rows: chosen.length,
    first: chosen
      .slice(0, FIRST)
      .map((contact) => layout.columns.map(({ field }) => exportCell(toExportRow(contact), field))),
    files: parts.map(({ name, from, rows }) => ({
      name,
      rows,
      companies: new Set(chosen.slice(from, from + rows).map(({ person }) => companyKey(person))).size,
    })),
  };
}
