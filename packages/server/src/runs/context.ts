import type { InputOf, RunKind, RunPhase, RunResult, Settings } from '@sieve/contract';
import type { Db } from '../db/open';
import type { Kept } from '../sieve/kept';

/** What a run is given. It may be stopped between any two units of work, and is then started again from the tables. */
export interface RunContext<K extends RunKind = RunKind> {
  db: Db;
  runId: number;
  jobId: number;
  input: InputOf<K>;
  settings: Settings;
  dataDir: string;
  now: () => number;
  /** What this thread keeps of the runs before. */
  kept: Kept;
  /** Tells the main thread how far the work is. */
  progress: (done: number, total: number, phase?: RunPhase) => void;
  /** Asks the main thread to sift the job, soon. */
  sift: () => void;
  signal: AbortSignal;
}

/** A run that goes on later: at a time, or when it is resumed. */
export interface Later {
  later: RunResult;
  at: number | null;
}

/** Does the work; the result is how the run ended, or when it goes on. */
export type RunHandler<K extends RunKind> = (context: RunContext<K>) => Promise<RunResult | Later>;
