import { column } from '@sieve/core/model/column';
import { HARVEST_ENDS, stopRules } from '@sieve/core/harvest/stop-rules';
import * as z from 'zod';
import { at, count, id } from './model';

/** A web page's address. */
export const pageAddress = z.url({ protocol: /^https?$/, hostname: z.regexes.domain }).max(2000);

/** What a site says about being harvested. `seconds`: it wants so many between two pages; 0: it does not say. */
export const robotsSay = z.object({ allows: z.boolean(), seconds: z.number().min(0), found: z.boolean() });
export type RobotsSay = z.output<typeof robotsSay>;

export const webPageBody = z.object({ address: pageAddress });
export const webPageFetched = z.object({ id: z.string(), name: z.string(), address: z.string() });

/** How the next page is found: by what is likeliest, by the words of a link, or not at all. */
export const nextWish = z.discriminatedUnion('by', [
  z.object({ by: z.literal('found') }),
  z.object({ by: z.literal('link'), text: z.string().max(300) }),
  z.object({ by: z.literal('none') }),
]);
export type NextWish = z.output<typeof nextWish>;

export type WebPageFetched = z.output<typeof webPageFetched>;
export const webPageLook = z.object({
  /** Where the page is; '' when only it itself can say. */
  address: z.string().max(2000),
});

const fieldPlace = z.object({ key: z.string().max(2000), name: z.string().max(200) });

/** A set of records of a page, with what its columns seem to be. */
export const pageSet = z.object({
  count,
  /** What stands over it on the page. */
  heading: z.string(),
  path: z.array(z.string()),
  identity: z.string(),
  fields: z.array(
    fieldPlace.extend({
      target: column.shape.target,
      filled: count,
      /** How long the text of the first records is, in characters. */
      lengths: z.array(count),
    }),
  ),
  /** The first records, by field. */
  rows: z.array(z.array(z.string())),
});
export type PageSet = z.output<typeof pageSet>;

export const webPage = z.object({
  address: z.string(),
  title: z.string(),
  bytes: count,
  sets: z.array(pageSet),
  next: z.array(
    z.object({
      address: z.string(),
      text: z.string(),
      signs: z.array(z.enum(['rel', 'word', 'number', 'more', 'arrow', 'offset'])),
      sure: z.number(),
    }),
  ),
  /** Of these, the address that is followed unasked; '' when none is sure enough. */
  followed: z.string(),
  /** How the next page was found on this site the last time; null when it was not asked yet. */
  remembered: nextWish.nullable(),
});
export type WebPage = z.output<typeof webPage>;

const every = z.int().min(1).max(365).nullable();

/** A harvest to begin. `fields` are the columns in their order, one for each of `columns`. */
export const newHarvest = z.object({
  uploadId: z.string().regex(/^[\w-]{8,40}$/),
  name: z.string().trim().min(1).max(300),
  /** The address of the page; '' when it is a file that does not say it. */
  address: z.string().max(2000),
  set: z.object({
    path: z.array(z.string().max(500)).max(500),
    fields: z.array(fieldPlace).min(1).max(500),
    /** The field by which a record is itself; '' for all of them together. */
    identity: z.string().max(2000),
  }),
  columns: z.array(column).min(1).max(500),
  next: nextWish,
  stop: stopRules,
  /** Seconds between two pages. */
  seconds: z.number().min(0.2).max(3600),
  everyDays: every,
});
export type NewHarvest = z.output<typeof newHarvest>;

const goesBy = z.object({ everyDays: every, seconds: newHarvest.shape.seconds, stop: stopRules }).partial();
/** `was`: the values as they were read; when one of them has been changed since, nothing is. */
export const harvestPatch = goesBy.extend({ was: goesBy.optional() });
export type HarvestPatch = z.output<typeof harvestPatch>;

export const PAGE_STATES = ['read', 'changed'] as const;
/** A page that was visited. `changed`: its layout is another, and nothing of it was taken. */
export const harvestPage = z.object({
  number: count,
  address: z.string(),
  state: z.enum(PAGE_STATES),
  rows: count,
  /** Not met on an earlier page or time. */
  fresh: count,
  /** Held in no job before. */
  yours: count,
  /** Left out since the watched column had turned, or enough had come. */
  left: count,
  lowest: z.number().nullable(),
  /** The page as it came, where its layout is another; '' for the others. */
  upload: z.string(),
  ms: count,
  at,
});
export type HarvestPageRow = z.output<typeof harvestPage>;

export const harvestView = z.object({
  id,
  jobId: id,
  sourceId: id,
  runId: id,
  name: z.string(),
  address: z.string(),
  /** The first page as it was looked at. */
  upload: z.string(),
  set: z.object({ path: z.array(z.string()), keys: z.array(z.string()), columns: z.array(column) }),
  next: nextWish,
  stop: stopRules,
  watched: z.string(),
  seconds: z.number(),
  /** What the site asks for where that is longer. */
  siteSeconds: z.number(),
  everyDays: every,
  nextAt: at.nullable(),
  /** Of the time that it was asked last: the page that comes next, and what came. */
  number: count,
  end: z.enum(HARVEST_ENDS).nullable(),
  rows: count,
  yours: count,
  /** Where it will likely end; 0 when nothing says it. */
  likelyPages: count,
  /** The cells of the records that came last, the newest first. */
  latest: z.array(z.array(z.string())),
  pages: z.array(harvestPage),
});
export type HarvestView = z.output<typeof harvestView>;

export const harvestStarted = z.object({ harvestId: id, sourceId: id, runId: id });
export type HarvestStarted = z.output<typeof harvestStarted>;
