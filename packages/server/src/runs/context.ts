import type { Settings } from '@sieve/contract';
import type { Db } from '../db/open';

/** What a run is given. It may be stopped between any two units of work, and is then started again from the tables. */
export interface RunContext {
  db: Db;
  runId: number;
  jobId: number;
  input: Record<string, number>;
  settings: Settings;
  dataDir: string;
  now: () => number;
  /** Tells the main thread how far the work is. */
  progress: (done: number, total: number, message?: string) => void;
  /** Asks the main thread to sift the job, soon. */
  sift: () => void;
  signal: AbortSignal;
}

/** A run that goes on later: at a time, or when it is resumed. */
export interface Later {
  message: string;
  at: number | null;
}

/** Does the work; the result is the run's closing message, or when it goes on. */
export type RunHandler = (context: RunContext) => Promise<string | Later>;
