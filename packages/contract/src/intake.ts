import type { Column, Recognised, RowIssue } from '@sieve/core';
import { TARGETS } from '@sieve/core/model/target';
import * as z from 'zod';

export const column = z.object({ name: z.string().max(200), target: z.enum(TARGETS) });

/** How a file is read. What is left out is found. */
export const format = z.object({
  kind: z.enum(['delimited', 'workbook', 'directory']),
  encoding: z.string().max(40).default('utf-8'),
  delimiter: z.string().max(1).default(','),
  sheet: z.string().max(200).default(''),
  /** Index of the header among the rows that are not blank; -1: none. */
  headerRow: z.int().min(-1).max(1000).default(0),
});
export type Format = z.output<typeof format>;

/** What the person said about a file; what is left out is found. No defaults here: they would pass for something said. */
const saidFormat = z
  .object({
    kind: z.enum(['delimited', 'workbook']),
    encoding: z.string().max(40),
    delimiter: z.string().length(1),
    sheet: z.string().max(200),
    headerRow: z.int().min(-1).max(1000),
  })
  .partial();

export const inspectBody = z.object({
  format: saidFormat.default({}),
  columns: z.array(column).max(500).nullable().default(null),
  jobId: z.int().nullable().default(null),
});

export interface Inspection {
  name: string;
  format: Format;
  sheets: string[];
  columns: Recognised[];
  /** How the columns will be read: as was said, else as the last table of this shape, else as recognised. */
  mapping: Column[];
  /** The mapping is that of an earlier table. */
  remembered: boolean;
  /** The first rows, as read. */
  preview: string[][];
  /** The first row as it will be after tidying. */
  tidied: { field: string; was: string; is: string }[];
  rows: number;
  blank: number;
  unread: number;
  noted: number;
  /** At most 500 of them. */
  issues: RowIssue[];
  held: { fresh: number; thisJob: number; otherJobs: number; suppressed: number };
}

export const bringIn = z.object({
  uploadId: z.string().regex(/^[\w-]{8,40}$/),
  name: z.string().trim().min(1).max(300),
  format,
  columns: z.array(column).min(1).max(500),
});

export interface SourceRow {
  id: number;
  name: string;
  rows: number;
  /** Rows that could not be read. */
  unread: number;
  /** Remarks on rows, those that were not read included. */
  issues: number;
  createdAt: number;
  /** The decision that brought it in; taken back, the source is out. */
  decision: number;
  out: boolean;
  format: Format;
}
