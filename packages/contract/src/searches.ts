import { search, type Found, type Search, type Subject } from '@sieve/core/model/search';
import * as z from 'zod';

export { search as searchSchema };

/** A part of a split as the screen draws it: what was added to the part above, in words and as conditions. */
export interface SplitPart {
  by: Search['conditions'][number] | null;
  count: number;
  parts: SplitPart[];
  /** Number of the batch, from 0; null for a part that was cut further. */
  batch: number | null;
}

export interface SplitView {
  top: SplitPart;
  count: number;
  fewest: number;
  outOfReach: number;
  questions: number;
  /** Made by hand: what is missing, and what is counted twice. */
  missing: number;
  twice: number;
  byHand: boolean;
}

export interface PullView {
  id: number;
  runId: number;
  jobId: number;
  startedAt: number;
  endedAt: number | null;
  /** Stopped for good before its end: the batch can be pulled again. */
  stopped: boolean;
  /** The next page. */
  page: number;
  /** Rows that the count promised, came, are new to the job, and were held elsewhere already. */
  promised: number;
  came: number;
  fresh: number;
  yours: number;
  /** Rows left out because their company had as many as it may have. */
  full: number;
}

export interface BatchView {
  id: number;
  position: number;
  search: Search;
  /** What only splits, without the conditions of the search itself. */
  extra: Search['conditions'];
  /** Cells of a sheet that go with each of its rows. */
  kept: Record<string, string>;
  count: number;
  pull: PullView | null;
}

/** When a search is asked again by itself. */
export const standing = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('days'),
    everyDays: z.int().min(1).max(365),
    /** How many times it is still asked; null: until it is switched off. */
    left: z.int().min(1).max(10_000).nullable(),
  }),
  z.object({ kind: z.literal('once'), at: z.int().min(0) }),
  /** Each time that the pulls of another search have all ended. */
  z.object({ kind: z.literal('after'), searchId: z.int().positive() }),
]);
export type Standing = z.infer<typeof standing>;

/** Rows that a pull takes of one company; 0: all. */
const perCompany = z.int().min(0).max(1000);
const name = z.string().trim().min(1).max(200);
export const newSearch = z.object({
  name,
  folder: z.string().trim().max(200).default(''),
  jobId: z.int().nullable().default(null),
  perCompany: perCompany.default(0),
  search,
});
export const searchPatch = z
  .object({
    name,
    folder: z.string().trim().max(200),
    jobId: z.int().nullable(),
    perCompany,
    search,
    standing: standing.nullable(),
  })
  .partial();

export type SearchPatch = z.infer<typeof searchPatch>;

export interface SearchRow {
  id: number;
  name: string;
  folder: string;
  jobId: number | null;
  perCompany: number;
  search: Search;
  createdAt: number;
  batches: number;
  pulled: number;
  standing: Standing | null;
  nextAt: number | null;
  /** Rows of the last standing run that were new. */
  lastNew: number;
}

export interface SearchView extends SearchRow {
  split: SplitView | null;
  batchViews: BatchView[];
  /** Every pull, newest first: what came when. */
  pulls: (PullView & { batch: number; standing: boolean })[];
}

export const countBody = z.object({ search });
export interface CountView {
  count: number;
  cap: number;
}

export const sampleBody = z.object({ search, size: z.int().min(1).max(100).default(20), jobId: z.int().nullable() });

export interface SampleView {
  total: number;
  rows: { row: DirectoryRow; fits: boolean; why: string[] }[];
  fit: number;
  /** Rows of the whole result that fit, between these with 95 % certainty. */
  promised: { low: number; likely: number; high: number };
  loose: { text: string; condition: number; term: number; misfits: number; quotedCount: number }[];
  /** Drawn over all pages, or over those that the directory shows. */
  reach: number;
}

/** A row as a directory shows it. */
export interface DirectoryRow {
  id: string;
  name: string;
  title: string;
  company: string;
  place: string;
  link: string;
  found: Found;
}

export const pageBody = z.object({ search, page: z.int().min(1).max(100) });
export interface PageView {
  total: number;
  pages: number;
  rows: (DirectoryRow & { held: boolean })[];
}

const kept = z.record(z.string().trim().min(1).max(100), z.string().max(1000));
export const batchesBody = z.object({
  batches: z
    .array(z.object({ search, kept: kept.default({}) }))
    .min(1)
    .max(500),
});
export type BatchesBody = z.input<typeof batchesBody>;
export const pullBody = z.object({ batchIds: z.array(z.int()).min(1).max(500), jobId: z.int() });

export interface PullForecast {
  rows: number;
  minutes: number;
  doneAt: number;
  rowsADay: number;
}

export const newPickList = z.object({ name, about: z.enum(['people', 'companies', 'postings']) });
export interface PickList {
  id: number;
  name: string;
  about: Subject;
  createdAt: number;
  picks: number;
}
/** Rows by id as a page of a search shows them, or the first so many of the whole result. */
export const picksBody = z.object({
  search,
  page: z.int().min(1).max(100),
  ids: z.array(z.string().max(60)).max(25).nullable(),
  /** With `ids` null: the first so many, from the first page on. */
  most: z.int().min(0).max(2500).default(0),
  onlyNew: z.boolean().default(false),
});

export type PicksBody = z.input<typeof picksBody>;

export const likeBody = z.object({
  about: z.enum(['companies', 'people']),
  rows: z.array(z.record(z.string(), z.unknown())).min(1).max(20),
});
export interface LikeView {
  condition: Search['conditions'][number];
  /** How many of the examples have it. */
  shared: number;
  of: number;
  count: number;
}
