import type { Estimate } from '@sieve/core';
import * as z from 'zod';

export const RUN_KINDS = ['intake', 'sift', 'append', 'verify', 'export', 'pull'] as const;
export type RunKind = (typeof RUN_KINDS)[number];
export const RUN_STATES = ['queued', 'running', 'paused', 'done', 'failed', 'cancelled'] as const;
export type RunState = (typeof RUN_STATES)[number];

export interface Run {
  id: number;
  jobId: number;
  jobName: string;
  kind: RunKind;
  state: RunState;
  done: number;
  total: number;
  /** Units a second over the last seconds; 0 when unknown. */
  rate: number;
  message: string;
  createdAt: number;
  endedAt: number | null;
  /** Waits until then. */
  notBefore: number | null;
}

export const startRun = z.object({ kind: z.enum(['append', 'verify']) });
export const runAction = z.object({ action: z.enum(['pause', 'resume', 'cancel']) });

export interface AskEstimate extends Estimate {
  leftCents: number;
  priceCents: number;
  finders: string[];
}

export type ServerEvent =
  { type: 'run'; run: Run } | { type: 'job'; jobId: number } | { type: 'search'; searchId: number };
