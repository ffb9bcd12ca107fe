import { faultOf, withStep, type SieveStep } from '@sieve/core';
import {
  configure,
  decisionRow,
  decisionSubject,
  job as jobSchema,
  newDecision,
  setUndone as setUndoneBody,
  type DecisionRow,
} from '@sieve/contract';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import type { AppContext } from '../app-context';
import { inTransaction } from '../db/open';
import { AppError } from '../errors';
import { byId, ok } from '../http/schemas';
import { allJobs } from '../jobs/store';
import { theJob } from '../jobs/the-job';
import { checkColumns } from '../sources/read-anew';
import { pullInto } from '../searches/store';
import { decide, setUndone } from './commands';
import { decisionRows } from './store';

const MOST_BYTES = 16 * 1024 * 1024;

/** What was decided, of whatever is on a screen; taken back and made again by the decision's own number. */
export const decisionRoutes =
  (context: AppContext): FastifyPluginAsyncZod =>
  async (app) => {
    const { db, queue, events, now } = context;
    const sift = (jobId: number) => {
      queue.enqueue(jobId, { kind: 'sift' });
      events.emit({ type: 'job', jobId });
    };
    /** Tells whoever looks at what a decision was about. */
    function tell({ subject, subjectId, body }: DecisionRow) {
      if (subject === 'job' && body.kind === 'brief') events.emit({ type: 'job', jobId: subjectId });
      else if (subject === 'job') sift(subjectId);
      else if (subject === 'search') events.emit({ type: 'search', searchId: subjectId });
      else if (subject === 'settings') for (const job of allJobs(db)) if (job.version > 0) sift(job.id);
    }

    /** What is taken back is not fetched on. */
    function stopPull(sourceId: number) {
      const runId = pullInto(db, sourceId);
      const state = runId === null ? undefined : queue.view(runId)?.state;
      if (state === 'running' || state === 'queued' || state === 'paused') queue.act(runId!, 'cancel');
    }

    app.get('/api/decisions', { schema: { querystring: decisionSubject, ...ok(z.array(decisionRow)) } }, ({ query }) =>
      decisionRows(db, query, 200),
    );
    app.post(
      '/api/decisions/:id',
      { schema: { params: byId, body: setUndoneBody, ...ok(decisionRow) } },
      ({ params, body }) => {
        const row = inTransaction(db, () => {
          const changed = setUndone(db, params.id, body.undone, now());
          tell(changed);
          return changed;
        });
        if (body.undone && row.body.kind === 'bring-in') stopPull(row.body.sourceId);
        return row;
      },
    );
    app.post(
      '/api/jobs/:id/decisions',
      { schema: { params: byId, body: newDecision, ...ok(decisionRow) }, bodyLimit: MOST_BYTES },
      ({ params, body }) => {
        theJob(db, params.id);
        return inTransaction(db, () => {
          if (body.body.kind === 'columns') checkColumns(db, params.id, body.body, now());
          sift(params.id);
          return decide(db, params.id, 'you', body.body, now());
        });
      },
    );
    app.post(
      '/api/jobs/:id/steps',
      { schema: { params: byId, body: configure, ...ok(z.object({ job: jobSchema, decision: decisionRow })) } },
      ({ params: { id }, body: { step, was } }) => {
        return inTransaction(db, () => {
          const { sieve } = theJob(db, id);
          const fault = faultOf(withStep(sieve, step));
          if (fault) throw new AppError('bad-request', { detail: fault });
          if (!sieve.some((known) => isSame(known, was)))
            throw new AppError('changed-meanwhile', { what: 'This step' });
          const decision = decide(db, id, 'you', { kind: 'configure', step }, now());
          sift(id);
          return { job: theJob(db, id), decision };
        });
      },
    );
  };

const isSame = (a: SieveStep, b: SieveStep) =>
  JSON.stringify([a.id, a.on, sorted(a)]) === JSON.stringify([b.id, b.on, sorted(b)]);
const sorted = ({ options }: SieveStep) => Object.entries(options).sort(([a], [b]) => (a < b ? -1 : 1));
