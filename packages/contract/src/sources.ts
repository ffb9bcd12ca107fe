import { SUPPRESSION_KINDS } from '@sieve/core/model/suppression';
import { column } from '@sieve/core/model/column';
import { OWN_TYPES, RECOGNISED_BY, TARGETS } from '@sieve/core/model/target';
import * as z from 'zod';
import { at, count, id, personField, rowIssue } from './model';

export const target = z.enum(TARGETS);
/** A field of the person's own. */
export const ownField = z.object({ name: z.string(), type: z.enum(OWN_TYPES) });
export type OwnField = z.output<typeof ownField>;

/** Index of the header among the rows that are not blank; -1: none. */
const headerRow = z.int().min(-1).max(1000);
/** The row above the header holds groups of its columns, and is joined with it. */
const joined = z.boolean().optional();
const table = z.object({
  kind: z.literal('table'),
  encoding: z.string().min(1).max(40),
  delimiter: z.string().length(1),
  headerRow,
  joined,
});
const workbook = z.object({ kind: z.literal('workbook'), sheet: z.string().max(200), headerRow, joined });

const encoding = table.shape.encoding;
/** The records of a saved page; `sheet` is which set of them. */
const page = z.object({ kind: z.literal('page'), encoding, sheet: z.string().max(300), headerRow });
/** Objects of a JSON document, or of JSON lines. */
const objects = z.object({ kind: z.literal('objects'), encoding, lines: z.boolean(), headerRow });
/** vCards. */
const cards = z.object({ kind: z.literal('cards'), encoding, headerRow });
const FORMATS = [table, workbook, page, objects, cards] as const;

/** How a file is read. */
export const format = z.discriminatedUnion('kind', FORMATS);
export type Format = z.output<typeof format>;

/** Where records came from, with what is its own. */
export const origin = z.discriminatedUnion('kind', [
  ...FORMATS,
  z.object({ kind: z.literal('directory'), searchId: z.int() }),
  z.object({ kind: z.literal('picks'), listId: z.int() }),
  z.object({ kind: z.literal('typed') }),
  z.object({ kind: z.literal('harvest'), address: z.string(), harvestId: z.int() }),
]);
export type Origin = z.output<typeof origin>;

/** What the records of a source are about. */
export const sourceAbout = z.enum(['people', 'companies']);
export type SourceAbout = z.output<typeof sourceAbout>;

/** What the person said about a file; what is left out is found. */
export const saidFormat = z
  .object({ kind: z.enum(['table', 'workbook', 'page', 'objects', 'cards']) })
  .extend({ ...table.omit({ kind: true }).shape, sheet: page.shape.sheet, lines: z.boolean(), joined: z.boolean() })
  .partial();
export type SaidFormat = z.output<typeof saidFormat>;

export const inspectBody = z.object({
  format: saidFormat.default({}),
  columns: z.array(column).max(500).nullable().default(null),
  jobId: z.int().nullable().default(null),
  /** Only its beginning, for a first view; the counts are of that. */
  beginning: z.boolean().default(false),
});

const upload = z.object({ id: z.string(), name: z.string() });
/** `holds`: the files that a zip was unpacked to, in its place. */
export const uploaded = upload.extend({ holds: z.array(upload) });
export type Uploaded = z.output<typeof uploaded>;

/** Where the people of a file stand already; each row counts once in the first four. */
export const heldCounts = z.object({
  fresh: count,
  thisJob: count,
  otherJobs: count,
  suppressed: count,
  /** Left with an export of any job before. */
  exported: count,
  /** Rows of somebody who stands further up in the file. */
  twice: count,
});
export type HeldCounts = z.output<typeof heldCounts>;

/** What there is to say of those who are held. */
export const heldDetails = z.object({
  /** Jobs that hold them, most first. */
  jobs: z.array(z.object({ id, name: z.string(), rows: count })),
  /** When the last of those who were exported left. */
  lastExportAt: at.nullable(),
  suppressedBy: z.partialRecord(z.enum(SUPPRESSION_KINDS), count),
  /** The first who are in the job already and come with something else: as held, as they come, as they will be. */
  merges: z.array(
    z.object({
      name: z.string(),
      fields: z.array(z.object({ field: personField, held: z.string(), comes: z.string(), then: z.string() })),
    }),
  ),
});
export type HeldDetails = z.output<typeof heldDetails>;

/** Which rows of a file come in: all, those of people who are held nowhere, those who never left with an export. */
export const WHO_COMES = ['all', 'new', 'not-exported'] as const;
export const whoComes = z.enum(WHO_COMES);
export type WhoComes = z.output<typeof whoComes>;

/** A column as it is recognised. */
const recognisedColumn = z.object({
  name: z.string(),
  target,
  sure: z.number(),
  why: z.enum(RECOGNISED_BY),
  samples: z.array(z.string()),
  filled: z.number(),
  lostDigits: count,
  type: z.enum(OWN_TYPES),
});

/** The columns of a source that came in: how they are read, how they would be recognised, and its first rows. */
export const sourceColumns = z.object({
  mapping: z.array(column),
  columns: z.array(recognisedColumn),
  preview: z.array(z.array(z.string())),
});
export type SourceColumns = z.output<typeof sourceColumns>;

export const inspection = z.object({
  name: z.string(),
  format,
  sheets: z.array(z.string()),
  columns: z.array(recognisedColumn),
  /** How the columns will be read: as was said, else as the last table of this shape, else as recognised. */
  mapping: z.array(column),
  /** The mapping is that of an earlier table. */
  remembered: z.boolean(),
  /** False: only its beginning was read, and more may follow. */
  whole: z.boolean(),
  /** The first rows, as read. */
  preview: z.array(z.array(z.string())),
  /** The first row as it will be after tidying. */
  tidied: z.array(z.object({ field: z.string(), was: z.string(), is: z.string() })),
  rows: count,
  blank: count,
  unread: count,
  noted: count,
  /** At most 500 of them. */
  issues: z.array(rowIssue),
  held: heldCounts,
  heldDetails,
});
export type Inspection = z.output<typeof inspection>;

export const bringIn = z.object({
  uploadId: z.string().regex(/^[\w-]{8,40}$/),
  name: z.string().trim().min(1).max(300),
  format,
  columns: z.array(column).min(1).max(500),
  take: whoComes.default('all'),
});
export const broughtIn = z.object({ sourceId: id, runId: id });

export const sourceRow = z.object({
  id,
  name: z.string(),
  origin,
  about: sourceAbout,
  rows: count,
  /** Rows that could not be read. */
  unread: count,
  /** Remarks on rows, those that were not read included. */
  issues: count,
  createdAt: at,
  /** Its bringing in was stopped before its end: the run that can go on, and how many rows are missing. */
  stopped: z.object({ runId: id, missing: count }).nullable(),
  /** The decision that brought it in; taken back, the source is out. */
  decision: id,
  out: z.boolean(),
});
export type SourceRow = z.output<typeof sourceRow>;

/** How tables of one shape are read: the columns by the names that they have in common. */
export const knownShape = z.object({ shape: z.string(), columns: z.array(column), at });
export type KnownShape = z.output<typeof knownShape>;
export const shapeColumns = z.object({ columns: z.array(column).min(1).max(500) });
export const forgottenShape = z.object({ shape: z.string().min(2).max(200_000) });
