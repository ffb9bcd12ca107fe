import { Piscina } from 'piscina';
import type { ExportLayout, ExportPreview, Inspection, Settings } from '@sieve/contract';
import { AppError } from '../errors';
import type { ToInspect } from '../sources/inspect';
import type { Look, LookEnd, LookTask } from './look';

type Log = (fields: object, message: string) => void;

/** A file of a million rows is seen through in about one minute; one that takes longer than this is not. */
const LONGEST_MS = 10 * 60_000;
const THREADS = 2;
/** What a thread may hold: more than the largest workbook that is opened. */
const MOST_MB = 1024;
const IDLE_MS = 30_000;

export type Lookout = ReturnType<typeof createLookout>;

/**
 * Looks at files and at what an export would be in threads of their own, so that the server goes on answering: two at a time, the
 * others wait. A thread that takes too long or too much is ended, and `too-long` is thrown.
 */
export function createLookout(worker: string, dbFile: string, settings: () => Settings, log: Log) {
  const pool = new Piscina<LookTask, LookEnd>({
    filename: worker,
    maxThreads: THREADS,
    minThreads: 0,
    idleTimeout: IDLE_MS,
    concurrentTasksPerWorker: 1,
    resourceLimits: { maxOldGenerationSizeMb: MOST_MB },
  });

  async function ask<T>(what: Look): Promise<T> {
    const signal = AbortSignal.timeout(LONGEST_MS);
    const task: LookTask = { dbFile, settings: settings(), ...what };
    const end = await pool.run(task, { signal }).catch((error: NodeJS.ErrnoException) => {
      const isTooMuch = signal.aborted || error.code === 'ERR_WORKER_OUT_OF_MEMORY';
      throw isTooMuch ? new AppError('too-long') : error;
    });
    if ('seen' in end) return end.seen as T;
    const { code, details, stack } = end.failed;
    if (stack !== '') log({ look: what.look, stack }, 'a look failed');
    throw new AppError(code, details);
  }

  return {
    inspect: (what: ToInspect) => ask<Inspection>({ look: 'file', what }),
    exportPreview: (jobId: number, layout: ExportLayout, now: number) =>
      ask<ExportPreview>({ look: 'export', jobId, layout, now }),
    close: () => pool.destroy(),
  };
}
