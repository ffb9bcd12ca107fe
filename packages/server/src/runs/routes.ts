import { estimateAppend, type Experience } from '@sieve/core';
import { runAction, startRun, type AskEstimate } from '@sieve/contract';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import type { AppContext } from '../app-context';
import type { Db } from '../db/open';
import { shownOutcomes } from '../sieve/outcomes';
import { jobById } from '../jobs/store';
import { AppError } from '../errors';

const byId = z.object({ id: z.coerce.number().int().positive() });

/** Background work, and what it would cost. */
export const runRoutes =
  ({ db, queue, settings }: AppContext): FastifyPluginAsyncZod =>
  async (app) => {
    app.get('/api/runs', () => queue.recent());
    app.post('/api/runs/:id', { schema: { params: byId, body: runAction } }, ({ params, body }) =>
      queue.act(params.id, body.action),
    );
    app.get('/api/jobs/:id/estimate', { schema: { params: byId } }, ({ params }) => estimate(params.id));
    app.post('/api/jobs/:id/runs', { schema: { params: byId, body: startRun } }, ({ params, body: { kind } }) => {
      const job = jobById(db, params.id);
      if (!job) throw new AppError('not-found', { what: 'job' });
      if (!job.summary || job.summary.steps[kind].waits === 0) throw new AppError('nothing-to-ask');
      return { runId: queue.enqueue(job.id, kind) };
    });

    function estimate(jobId: number): AskEstimate {
      const job = jobById(db, jobId);
      if (!job) throw new AppError('not-found', { what: 'job' });
      const finders = settings().finders.filter(({ id }) => job.steps.append.finders.includes(id));
      const priceCents = Math.max(0, ...finders.map((finder) => finder.priceCents));
      const leftCents = Math.max(0, job.budgetCents - job.spentCents);
      const waiting = job.summary?.steps.append.waits ?? 0;
      return {
        ...estimateAppend(waiting, experience(db), priceCents, leftCents),
        leftCents,
        priceCents,
        finders: finders.map(({ name }) => name),
      };
    }
  };

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
