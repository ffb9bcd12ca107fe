import * as z from 'zod';
import { at, count, id } from './model';

const goingVerdict = z.enum(['valid', 'risky', 'unknown', 'none']);

/** What leaves of each contact, in this order, under these headings. */
export const exportColumns = z
  .array(z.object({ field: z.string().min(1).max(200), heading: z.string().trim().min(1).max(200) }))
  .min(1)
  .max(200);

export const exportLayout = z.object({
  columns: exportColumns,
  verdicts: z.array(goingVerdict).min(1),
  onlyNew: z.boolean().default(true),
  form: z.enum(['csv', 'xlsx']).default('csv'),
  /** Rows a file; 0: one file. */
  rowsEach: z.int().min(0).max(1_000_000).default(0),
  pattern: z.string().trim().min(1).max(100).default('{job}-{n}'),
});
export type ExportLayout = z.output<typeof exportLayout>;

export const exportPreview = z.object({
  rows: count,
  first: z.array(z.array(z.string())),
  files: z.array(z.object({ name: z.string(), rows: count, companies: count })),
  counts: z.record(goingVerdict, count),
  heldBack: z.object({ exportedBefore: count, risky: count, suppressed: count, stale: count }),
  ownFields: z.array(z.string()),
});
export type ExportPreview = z.output<typeof exportPreview>;

export const exportFile = z.object({ name: z.string(), rows: count, sha256: z.string() });
export const exportRun = z.object({ id, at, rows: count, files: z.array(exportFile) });
export type ExportRun = z.output<typeof exportRun>;
export const exportStarted = z.object({ exportId: id, runId: id });
