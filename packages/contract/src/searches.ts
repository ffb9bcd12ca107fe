import { condition, search, SUBJECTS, type Found } from '@sieve/core/model/search';
import * as z from 'zod';
import { askEstimate } from './sieve';
import { at, count, id } from './model';

export { search as searchSchema };

/** A part of a split as the screen draws it: what was added to the part above, in words and as conditions. */
const splitPart = z.object({
  by: condition.nullable(),
  count,
  get parts(): z.ZodArray<typeof splitPart> {
    return z.array(splitPart);
  },
  /** Number of the search batch, from 0; null for a part that was cut further. */
  batch: z.int().nullable(),
});
export type SplitPart = z.output<typeof splitPart>;

export const splitView = z.object({
  top: splitPart,
  count,
  fewest: count,
  outOfReach: count,
  questions: count,
  /** Made by hand: what is missing, and what is counted twice. */
  missing: z.int(),
  twice: z.int(),
  byHand: z.boolean(),
});
export type SplitView = z.output<typeof splitView>;

export const pullView = z.object({
  id,
  runId: z.int(),
  jobId: id,
  startedAt: at,
  endedAt: at.nullable(),
  /** Stopped for good before its end: the batch can be pulled again. */
  stopped: z.boolean(),
  /** Its rows were taken out of the job again: they can be pulled again. */
  takenBack: z.boolean(),
  /** Rows that it takes, from the first on; 0: all. */
  first: count,
  /** The next page. */
  page: count,
  /** Rows that the count promised, came, are new to the job, and were held elsewhere already. */
  promised: count,
  came: count,
  fresh: count,
  yours: count,
  /** Rows left out because their company had as many as it may have. */
  full: count,
});
export type PullView = z.output<typeof pullView>;

const kept = z.record(z.string().trim().min(1).max(100), z.string().max(1000));

export const searchBatch = z.object({
  id,
  position: count,
  search,
  /** What only splits, without the conditions of the search itself. */
  extra: z.array(condition),
  /** Cells of a sheet that go with each of its rows. */
  kept: z.record(z.string(), z.string()),
  count,
  pull: pullView.nullable(),
});
export type SearchBatch = z.output<typeof searchBatch>;

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

/** Why a standing search could not be asked, by the table of errors, and since when. */
export const standingFailure = z.object({
  error: z.string(),
  details: z.record(z.string(), z.union([z.string(), z.number()])),
  at,
});
export type StandingFailure = z.output<typeof standingFailure>;

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

export const searchRow = z.object({
  id,
  name: z.string(),
  folder: z.string(),
  jobId: z.int().nullable(),
  perCompany: count,
  search,
  createdAt: at,
  batches: count,
  pulled: count,
  standing: standing.nullable(),
  nextAt: at.nullable(),
  failed: standingFailure.nullable(),
  /** Rows of the last standing run that were new. */
  lastNew: count,
});
export type SearchRow = z.output<typeof searchRow>;

export const searchView = searchRow.extend({
  /** Counted up with every change. */
  version: count,
  /** The run that splits it; null while none does. */
  splitting: id.nullable(),
  split: splitView.nullable(),
  batchViews: z.array(searchBatch),
  /** Every pull, newest first: what came when. */
  pulls: z.array(pullView.extend({ batch: count, standing: z.boolean() })),
});
export type SearchView = z.output<typeof searchView>;

export const countBody = z.object({ search });
export const countView = z.object({ count, cap: count });
export type CountView = z.output<typeof countView>;

/** Values of a field over what a search finds, as the directory counts them. */
export const valuesBody = z.object({ search, field: z.string().max(40) });
/** The most common first; null where the directory does not count them. */
export const valuesView = z.array(z.object({ value: z.string(), count })).nullable();
export type ValuesView = z.output<typeof valuesView>;

export const sampleBody = z.object({ search, size: z.int().min(1).max(100).default(20), jobId: z.int().nullable() });

const found = z.record(
  z.string(),
  z.union([z.string(), z.array(z.string()), z.number(), z.null()]).optional(),
) as unknown as z.ZodType<Found>;

/** A row as a directory shows it. */
export const directoryRow = z.object({
  id: z.string(),
  name: z.string(),
  title: z.string(),
  company: z.string(),
  place: z.string(),
  link: z.string(),
  found,
});
export type DirectoryRow = z.output<typeof directoryRow>;

export const sampleView = z.object({
  total: count,
  rows: z.array(z.object({ row: directoryRow, fits: z.boolean(), why: z.array(z.string()) })),
  fit: count,
  /** Rows of the whole result that fit, between these with 95 % certainty. */
  promised: z.object({ low: count, likely: count, high: count }),
  loose: z.array(z.object({ text: z.string(), condition: count, term: count, misfits: count, quotedCount: count })),
  /** Drawn over all pages, or over those that the directory shows. */
  reach: count,
});
export type SampleView = z.output<typeof sampleView>;

export const pageBody = z.object({ search, page: z.int().min(1).max(100) });
export const pageView = z.object({
  total: count,
  pages: count,
  rows: z.array(directoryRow.extend({ held: z.boolean() })),
});
export type PageView = z.output<typeof pageView>;

export const searchBatchesBody = z.object({
  batches: z
    .array(z.object({ search, kept: kept.default({}) }))
    .min(1)
    .max(500),
});
export type SearchBatchesBody = z.input<typeof searchBatchesBody>;
export const pullBody = z.object({
  batchIds: z.array(z.int()).min(1).max(500),
  jobId: z.int(),
  /** Rows of each batch, from the first on; 0: all. */
  first: z.int().min(0).max(2500).default(0),
});
export type PullBody = z.input<typeof pullBody>;
export const pullsStarted = z.object({ runIds: z.array(id) });

/** `pageSize` and `pagesPerSecond` are what the time rests on, with the pace. */
export const pullForecast = z.object({
  rows: count,
  minutes: z.number(),
  doneAt: at,
  rowsADay: count,
  pageSize: count,
  pagesPerSecond: z.number(),
  /** What asking for the addresses of all of them would bring and cost. */
  asking: askEstimate,
});
export type PullForecast = z.output<typeof pullForecast>;

export const newPickList = z.object({ name, about: z.enum(SUBJECTS) });
export const pickList = z.object({ id, name: z.string(), about: z.enum(SUBJECTS), createdAt: at, picks: count });
export type PickList = z.output<typeof pickList>;
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
export const picked = pickList.extend({ added: count });

export const likeBody = z.object({
  about: z.enum(['companies', 'people']),
  rows: z.array(z.record(z.string(), z.unknown())).min(1).max(20),
});
/** `shared`: how many of the examples have it. */
export const likeView = z.object({ condition, shared: count, of: count, count });
export type LikeView = z.output<typeof likeView>;

/** Batches that a search had before: by the decision that took them away. */
export const earlierBatches = z.object({ decision: id, at, batches: count, search });
export type EarlierBatches = z.output<typeof earlierBatches>;
