import { Cron } from 'croner';
import type { AppContext } from '../app-context';
import { toAppError } from '../errors';
import { allJobs } from '../jobs/store';
import { pullSplitSearches, startDueSearches } from '../searches/standing';
import { cleanUploads } from '../sources/clean-uploads';

type Parts = Pick<AppContext, 'db' | 'queue' | 'events' | 'now' | 'directory' | 'dataDir'>;
type Log = (fields: object, message: string) => void;

/** What is done by the clock. Each looks in the tables for what is due, so nothing is missed while the server is off. */
const DUTIES: Record<string, (parts: Parts) => unknown> = {
  'standing searches': startDueSearches,
  'split searches': pullSplitSearches,
  uploads: cleanUploads,
  /** Facts age: jobs that rest on one that has are sifted, so that its contacts wait again. */
  'aged facts': ({ db, queue, now }) => {
    for (const { id, summary } of allJobs(db))
      if (summary?.freshUntil != null && summary.freshUntil < now()) queue.enqueue(id, { kind: 'sift' });
  },
};

/** The clock of the server: each duty twice a minute, never twice at once, and none waits for another. */
export function createScheduler(parts: Parts, log: Log) {
  const duties = Object.entries(DUTIES).map(([name, duty]) => async () => {
    try {
      await duty(parts);
    } catch (error) {
      const { code, details } = toAppError(error);
      log({ code, details }, name);
    }
  });
  const clocks = duties.map((duty) => new Cron('*/30 * * * * *', { protect: true, paused: true, unref: true }, duty));
  return {
    work: () => Promise.all(duties.map((duty) => duty())),
    start: () => clocks.forEach((clock) => void (clock.resume(), clock.trigger())),
    stop: () => clocks.forEach((clock) => clock.stop()),
  };
}
