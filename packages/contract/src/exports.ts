import * as z from 'zod';

export const exportLayout = z.object({
  columns: z
    .array(z.object({ field: z.string().min(1).max(200), heading: z.string().trim().min(1).max(200) }))
    .min(1)
    .max(200),
  verdicts: z.array(z.enum(['valid', 'risky', 'unknown', 'none'])).min(1),
  onlyNew: z.boolean().default(true),
  form: z.enum(['csv', 'xlsx']).default('csv'),
  /** Rows a file; 0: one file. */
  rowsEach: z.int().min(0).max(1_000_000).default(0),
  pattern: z.string().trim().min(1).max(100).default('{job}-{n}'),
});
export type ExportLayout = z.output<typeof exportLayout>;

export interface ExportPreview {
  rows: number;
  first: string[][];
  files: { name: string; rows: number; companies: number }[];
  counts: Record<'valid' | 'risky' | 'unknown' | 'none', number>;
  heldBack: { exportedBefore: number; risky: number; suppressed: number; stale: number };
  ownFields: string[];
}

export interface ExportRun {
  id: number;
  at: number;
  rows: number;
  state: string;
  files: { name: string; rows: number; sha256: string }[];
}
