import { appendEmail, estimateAppend, stepIn, type Experience } from '@sieve/core';
import type { AskEstimate, Settings } from '@sieve/contract';
import type { Db } from '../db/open';
import { timedAsks } from '../runs/store';
import { theJob } from '../jobs/the-job';
import { shownOutcomes } from './outcomes';

/**
 * What appending to a job would cost, take and bring.
 *
 * @param contacts to be asked about; those that wait for it, when it is left out
 */
export function estimateFor(db: Db, jobId: number, settings: Settings, contacts?: number): AskEstimate {
  const job = theJob(db, jobId);
  const { options } = stepIn(job.sieve, appendEmail);
  const finders = settings.finders.filter(({ id }) => options.finders.includes(id));
  const priceCents = Math.max(0, ...finders.map((finder) => finder.priceCents));
  const leftCents = Math.max(0, job.budgetCents - job.spentCents);
  const step = job.sieve.find(({ kind }) => kind === appendEmail.kind);
  const waiting = contacts ?? job.summary?.steps.find(({ id }) => id === step?.id)?.waits ?? 0;
  const seen = experience(db);
  const timed = timedAsks(db, step?.id ?? '');
  return {
    ...estimateAppend(waiting, seen, priceCents, leftCents, timed),
    rests: { lookups: seen.tried, timed: timed.contacts },
    leftCents,
    priceCents,
    finders: finders.map(({ name }) => name),
  };
}

/** What append has brought so far, over all jobs. */
function experience(db: Db): Experience {
  const all = shownOutcomes(db).map(
    ({ contacts }) =>
      db.outcomes
        .prepare(
          `SELECT count(*) AS tried, coalesce(sum(via = 'pattern' AND verdict = 'valid'), 0) AS byPattern,
             coalesce(sum(via NOT IN ('pattern', 'given', '') AND verdict = 'valid'), 0) AS byFinder
           FROM ${contacts} WHERE via NOT IN ('given', '') OR code = 'no-address-found'`,
        )
        .get() as Experience,
  );
  const sum = (of: keyof Experience) => all.reduce((total, one) => total + one[of], 0);
  return { tried: sum('tried'), byPattern: sum('byPattern'), byFinder: sum('byFinder') };
}
