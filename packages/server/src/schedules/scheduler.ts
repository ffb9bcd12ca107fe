import { Cron } from 'croner';
import type { Summary } from '@sieve/contract';
import type { AppContext } from '../app-context';
import { toAppError } from '../errors';
import { startDueHarvests } from '../harvests/commands';
import { allJobs } from '../jobs/store';
import { pullSplitSearches, startDueSearches } from '../searches/standing';
import { elsewhereVersion } from '../sieve/elsewhere';
import { cleanUploads } from '../sources/clean-uploads';

type Parts = Pick<AppContext, 'db' | 'queue' | 'events' | 'now' | 'directory' | 'dataDir'>;
type Log = (fields: object, message: string) => void;

interface Duty {
  everySeconds: 5 | 30;
  work: (parts: Parts) => unknown;
}

/** What is done by the clock. Each looks in the tables for what is due, so nothing is missed while the server is off. */
const DUTIES: Record<string, Duty> = {
  'standing searches': { everySeconds: 30, work: startDueSearches },
  'split searches': { everySeconds: 5, work: pullSplitSearches },
  'standing harvests': { everySeconds: 30, work: startDueHarvests },
  uploads: { everySeconds: 30, work: cleanUploads },
  /** Facts age, suppressions end, other jobs hold others: jobs that rest on one that has changed are sifted anew. */
  'aged outcomes': {
    everySeconds: 30,
    work: ({ db, queue, now }) => {
      const isAged = (id: number, { freshUntil, elsewhere }: Summary) =>
        (freshUntil !== null && freshUntil < now()) || (elsewhere != null && elsewhere !== elsewhereVersion(db, id));
      for (const { id, summary } of allJobs(db))
        if (summary && isAged(id, summary)) queue.enqueue(id, { kind: 'sift' });
    },
  },
};

/** The clock of the server: each duty in its own time, never twice at once, and none waits for another. */
export function createScheduler(parts: Parts, log: Log) {
  const duties = Object.entries(DUTIES).map(([name, { everySeconds, work }]) => ({
    everySeconds,
    work: async () => {
      try {
        await work(parts);
      } catch (error) {
        const { code, details } = toAppError(error);
        log({ code, details }, name);
      }
    },
  }));
  const clocks = duties.map(
    ({ everySeconds, work }) =>
      new Cron(`*/${everySeconds} * * * * *`, { protect: true, paused: true, unref: true }, work),
  );
  return {
    work: () => Promise.all(duties.map(({ work }) => work())),
    start: () => clocks.forEach((clock) => void (clock.resume(), clock.trigger())),
    stop: () => clocks.forEach((clock) => clock.stop()),
  };
}
