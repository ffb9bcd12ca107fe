import { HARVEST_ENDS } from '@sieve/core/harvest/stop-rules';
import * as z from 'zod';
import { at, count, id } from './model';
import { whoComes } from './sources';

/** What a run is to do. */
export const runInput = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('bring-in'), sourceId: id, rows: count, take: whoComes.optional() }),
  z.object({ kind: z.literal('sift') }),
  /** `upTo`: the last contact that is asked about, by its id; left out: all of them. */
  z.object({ kind: z.literal('ask'), step: z.string(), upTo: id.optional() }),
  z.object({ kind: z.literal('export'), exportId: id }),
  z.object({ kind: z.literal('pull'), pullId: id, searchId: id }),
  z.object({ kind: z.literal('harvest'), harvestId: id }),
  /** `version`: the search as it was when this was asked for. */
  /** `thenPull`: a standing search that has outgrown its batches; all of them are pulled when it is done. */
  z.object({ kind: z.literal('split'), searchId: id, version: count, thenPull: z.boolean().optional() }),
]);
export type RunInput = z.output<typeof runInput>;
export type RunKind = RunInput['kind'];
export type InputOf<K extends RunKind> = Extract<RunInput, { kind: K }>;

/** How it ended, or why it stopped; the words are `runWords`. */
export const runResult = z.discriminatedUnion('code', [
  z.object({ code: z.literal('rows-read'), rows: count }),
  z.object({ code: z.literal('sifted'), contacts: count, companies: count }),
  z.object({
    code: z.literal('asked'),
    contacts: count,
    /** Settled now; `silent` wait since nobody answered, `unaffordable` since the budget does not reach. */
    settled: count,
    silent: count,
    unaffordable: count,
    /** Finders that could not be asked. */
    down: z.array(z.object({ finder: z.string(), reason: z.string() })),
  }),
  z.object({ code: z.literal('exported'), rows: count, files: count }),
  z.object({ code: z.literal('pulled'), promised: count, came: count, fresh: count, full: count }),
  z.object({ code: z.literal('split'), batches: count, questions: count }),
  z.object({
    code: z.literal('harvested'),
    pages: count,
    rows: count,
    /** Pages of another layout. */
    changed: count,
    end: z.enum(HARVEST_ENDS),
  }),
  z.object({ code: z.literal('asked-to-wait'), host: z.string(), rows: count }),
  z.object({ code: z.literal('out-of-hours'), promised: count, came: count }),
  z.object({ code: z.literal('enough-for-a-run'), rows: count }),
  z.object({
    code: z.literal('failed'),
    error: z.string(),
    details: z.record(z.string(), z.union([z.string(), z.number()])),
  }),
  /** Runs of older versions kept words only. */
  z.object({ code: z.literal('said'), words: z.string() }),
]);
export type RunResult = z.output<typeof runResult>;

export const RUN_PHASES = ['tidying', 'matching', 'writing'] as const;
export type RunPhase = (typeof RUN_PHASES)[number];

export const RUN_STATES = ['queued', 'running', 'paused', 'done', 'failed', 'cancelled'] as const;
export type RunState = (typeof RUN_STATES)[number];

export const run = z.object({
  id,
  /** 0: of a search that no job has. */
  jobId: count,
  jobName: z.string(),
  input: runInput,
  state: z.enum(RUN_STATES),
  done: count,
  total: count,
  /** Units a second over the last seconds; 0 when unknown. */
  rate: z.number(),
  phase: z.enum(RUN_PHASES).nullable(),
  result: runResult.nullable(),
  createdAt: at,
  endedAt: at.nullable(),
  /** Waits until then. */
  notBefore: at.nullable(),
  /** When a person looked at how it failed. */
  seenAt: at.nullable(),
});
export type Run = z.output<typeof run>;

export const startRun = z.object({
  step: z.string().max(60),
  /** How many contacts are asked about; left out: all that wait. */
  most: z.int().positive().optional(),
});
export type StartRun = z.input<typeof startRun>;
export const started = z.object({ runId: id });
export const runAction = z.object({ action: z.enum(['pause', 'resume', 'cancel']) });
export type RunAction = z.output<typeof runAction>['action'];

export type ServerEvent =
  { type: 'run'; run: Run } | { type: 'job'; jobId: number } | { type: 'search'; searchId: number };
