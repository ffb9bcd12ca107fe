import { sieveStep } from '@sieve/core/steps/sieve';
import * as z from 'zod';
import { exportColumns } from './exports';
import { at, count, id } from './model';

const jobFields = {
  name: z.string().trim().min(1).max(200),
  /** Whom the contacts are delivered to. */
  client: z.string().trim().max(200),
  folder: z.string().trim().max(200),
  note: z.string().trim().max(2000),
  targetValid: z.int().min(0).max(10_000_000),
  budgetCents: z.int().min(0).max(1_000_000_000),
};

export const newJob = z.object({
  ...jobFields,
  client: jobFields.client.default(''),
  folder: jobFields.folder.default(''),
  note: jobFields.note.default(''),
  targetValid: jobFields.targetValid.default(0),
  budgetCents: jobFields.budgetCents.default(0),
});
export type NewJob = z.output<typeof newJob>;
/** What is left out stays as it is. */
const someFields = z.object({ ...jobFields, columns: exportColumns }).partial();
export type JobPatch = z.output<typeof someFields>;
/** `was`: values as they were read; when one of them has been changed since, nothing is changed. */
export const jobPatch = someFields.extend({ was: someFields.optional() });

/** How many contacts came to a step, what became of them there, and why: by code, or by rule of the step. */
export const stepCount = z.object({
  id: z.string(),
  came: count,
  pass: count,
  aside: count,
  look: count,
  waits: count,
  why: z.record(z.string(), count),
});
export type StepCount = z.output<typeof stepCount>;

/** What the last sifting found, kept with the job. */
export const summary = z.object({
  records: count,
  companies: count,
  sources: count,
  edits: count,
  merged: count,
  pairs: count,
  expectedError: z.number(),
  /** Between these the share of wrong merges is in nine jobs of ten. */
  errorRange: z.object({ low: z.number(), high: z.number() }).optional(),
  /** Pairs at least this likely were merged; not there where it was sifted before this was counted. */
  mergeFrom: z.number().optional(),
  /** What other lines of matching would merge: from 0.01 to 0.999, evenly by log-odds. */
  lines: z.array(z.object({ line: z.number(), pairs: count, wrong: z.number() })).optional(),
  /** Judged pairs that teach the weights, and how many others they took over a line; null: too few. */
  taught: z.object({ judged: count, moved: count }).nullable().optional(),
  /** In the order of the sieve. */
  steps: z.array(stepCount),
  verdicts: z.record(z.enum(['valid', 'risky', 'invalid', 'unknown', 'none']), count),
  likelyValid: count,
  /** When the first of the facts it rests on is no longer fresh, or an entry of the suppression list ends; null: never. */
  freshUntil: at.nullable(),
  /** What other jobs held then, where a rule asks for it: sifted anew when that is no longer so. */
  elsewhere: z.string().nullable().optional(),
});
export type Summary = z.output<typeof summary>;

export const job = z.object({
  ...jobFields,
  /** What leaves of its contacts: decided once, later rows follow. */
  columns: exportColumns,
  id,
  createdAt: at,
  /** How often it was sifted. */
  version: count,
  /** The steps in force. */
  sieve: z.array(sieveStep),
  summary: summary.nullable(),
  spentCents: count,
  /** Decisions that stand. */
  decisions: count,
});
export type Job = z.output<typeof job>;
