import { Piscina } from 'piscina';
import type { Settings } from '@sieve/contract';
import { AppError } from '../errors';
import type { DeepLook, Look, LookArgs, LookEnd, LookTask, Seen } from './look';

type Log = (fields: object, message: string) => void;

/** A file of a million rows is seen through in about one minute; one that takes longer than this is not. */
const LONGEST_MS = 10 * 60_000;
const THREADS = 2;
/** What a thread may hold: more than the largest workbook that is opened. */
const MOST_MB = 1024;
const DEEP_IDLE_MS = 30_000;
const QUICK_IDLE_MS = 10 * 60_000;

const DEEP: ReadonlySet<Look> = new Set<DeepLook>(['file', 'page', 'preview', 'export', 'anybodyGoes']);

export type Lookout = ReturnType<typeof createLookout>;

/**
 * Looks at files, at what was sifted and at what an export would be in threads of their own, so that the server goes on
 * answering: two at a time of those that may take minutes, and two of those that a screen waits for; others wait. A thread that
 * takes too long or too much is ended, and `too-long` is thrown.
 */
export function createLookout(worker: string, dbFile: string, settings: () => Settings, log: Log) {
  const pool = (minThreads: number, idleTimeout: number) =>
    new Piscina<LookTask, LookEnd>({
      filename: worker,
      maxThreads: THREADS,
      minThreads,
      idleTimeout,
      concurrentTasksPerWorker: 1,
      resourceLimits: { maxOldGenerationSizeMb: MOST_MB },
    });
  const [deep, quick] = [pool(0, DEEP_IDLE_MS), pool(1, QUICK_IDLE_MS)];

  async function look<K extends Look>(at: K, ...args: LookArgs<K>): Promise<Seen<K>> {
    const signal = AbortSignal.timeout(LONGEST_MS);
    const task: LookTask = { dbFile, settings: settings(), look: at, args };
    const end = await (DEEP.has(at) ? deep : quick).run(task, { signal }).catch((error: NodeJS.ErrnoException) => {
      const isTooMuch = signal.aborted || error.code === 'ERR_WORKER_OUT_OF_MEMORY';
      throw isTooMuch ? new AppError('too-long') : error;
    });
    if ('seen' in end) return end.seen as Seen<K>;
    const { code, details, stack } = end.failed;
    if (stack !== '') log({ look: at, stack }, 'a look failed');
    throw new AppError(code, details);
  }

  return { look, close: () => Promise.all([deep.destroy(), quick.destroy()]) };
}
