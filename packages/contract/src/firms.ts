import { SITE_ANSWERS } from '@sieve/core/steps/company/options';
import * as z from 'zod';
import { at, count, firm, id } from './model';

export const FIRM_SORTS = ['name', 'answer', 'domain', 'sector', 'headcount', 'place', 'contacts'] as const;

export const firmQuery = z.object({
  step: z.string().max(60).default('company'),
  /** `teach`: those whose answer would teach the reader most. */
  show: z.enum(['all', 'pass', 'aside', 'look', 'waits', 'teach']).default('all'),
  /** Only those whose website answers so. */
  answer: z.enum(SITE_ANSWERS).optional(),
  q: z.string().trim().max(200).default(''),
  sort: z.enum(FIRM_SORTS).default('contacts'),
  desc: z.stringbool().default(false),
  offset: z.coerce.number().int().min(0).default(0),
  limit: z.coerce.number().int().min(1).max(500).default(100),
});
export type FirmQuery = z.output<typeof firmQuery>;

const answer = z.enum([...SITE_ANSWERS, '']);

/** A company of those who came to a step. */
export const firmRow = z.object({
  /** Its domain, else its folded name. */
  key: z.string(),
  name: z.string(),
  domain: z.string(),
  sector: z.string(),
  headcount: z.string(),
  place: z.string(),
  /** How many of its people came to the step, and how many of them go on. */
  came: count,
  pass: count,
  /** Where it stands: `pass` when any of its people go on. */
  state: z.enum(['pass', 'aside', 'look', 'waits']),
  code: z.string(),
  why: z.record(z.string(), z.union([z.string(), z.number()])),
  answer,
  /** How likely a yes is, 0 to 1. */
  yes: z.number(),
  by: firm.shape.by,
});
export type FirmRow = z.output<typeof firmRow>;

export const firmPage = z.object({
  total: count,
  rows: z.array(firmRow),
  /** Of all companies that came, by where they stand and by what their websites answer. */
  states: z.object({ pass: count, aside: count, look: count, waits: count }),
  answers: z.object({ yes: count, no: count, unclear: count }),
  /** How many answers by hand teach the reader. */
  taught: z.object({ yes: count, no: count }),
});
export type FirmPage = z.output<typeof firmPage>;

const side = firmRow.pick({ key: true, name: true, domain: true, place: true }).extend({ people: count });
/** Companies that may be one, the least certain first. */
export const firmPairs = z.object({ total: count, pairs: z.array(z.object({ chance: z.number(), a: side, b: side })) });
export type FirmPairs = z.output<typeof firmPairs>;

/** How many contacts rules about companies would take, each at the first that their company breaks. */
export const firmEffect = z.object({ came: count, pass: count, rules: z.record(z.string(), count) });
export type FirmEffect = z.output<typeof firmEffect>;

/** A company in full. */
export const firmView = firmRow.extend({
  site: z
    .object({
      state: z.enum(['read', 'parked', 'no-domain', 'no-site', 'refused', 'try-later', 'no-answer']),
      askedAt: at,
      pages: z.array(z.object({ path: z.string(), title: z.string(), lines: count })),
      /** The sentences that decide, those first that say what was answered. */
      speaking: z.array(
        z.object({
          path: z.string(),
          line: count,
          text: z.string(),
          speaks: z.enum(['for', 'against']),
          word: z.string(),
        }),
      ),
    })
    .nullable(),
  /** What a service said of it. */
  bought: z
    .object({
      service: z.string(),
      askedAt: at,
      priceCents: count,
      /** Null where the service knows nothing of it. */
      record: z
        .object({
          sector: z.string(),
          headcount: z.int().nullable(),
          growth: z.number().nullable(),
          place: z.string(),
          technology: z.array(z.string()),
          hiring: z.array(z.string()),
        })
        .nullable(),
    })
    .nullable(),
  /** What its people read about this week; null where that was not asked. */
  topics: z.object({ service: z.string(), askedAt: at, priceCents: count, topics: z.array(z.string()) }).nullable(),
  /** Companies of the job that may be the same, the likeliest first. */
  twins: z.array(
    z.object({ key: z.string(), name: z.string(), domain: z.string(), place: z.string(), chance: z.number() }),
  ),
  /** Other names and domains that were put together with it. */
  joined: z.array(z.object({ key: z.string(), name: z.string(), domain: z.string() })),
  /** Other companies of the job whose names say that they are of one group with it, by the most people. */
  sites: z.array(z.object({ key: z.string(), name: z.string(), place: z.string(), came: count })),
  /** How its people's records spell its name, and how many each; the one that most have stands for it. */
  spellings: z.array(z.object({ name: z.string(), people: count })),
  /** All of its people who came. */
  contactIds: z.array(id),
  /** All of their records. */
  recordIds: z.array(id),
  /** The first of them. */
  people: z.array(z.object({ id, name: z.string(), title: z.string(), state: z.string(), verdict: z.string() })),
});
export type FirmView = z.output<typeof firmView>;
