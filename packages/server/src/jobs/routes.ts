import { isDeepStrictEqual } from 'node:util';
import { job as jobSchema, jobPatch, newJob, type JobPatch } from '@sieve/contract';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import type { AppContext } from '../app-context';
import { logChange } from '../decisions/commands';
import { inTransaction } from '../db/open';
import { AppError } from '../errors';
import { byId, ok } from '../http/schemas';
import { theJob } from './the-job';
import { allJobs, createJob, patchJob } from './store';

/** Jobs and their briefs. */
export const jobRoutes =
  ({ db, events, now }: AppContext): FastifyPluginAsyncZod =>
  async (app) => {
    app.get('/api/jobs', { schema: ok(z.array(jobSchema)) }, () => allJobs(db));
    app.post('/api/jobs', { schema: { body: newJob, ...ok(jobSchema) } }, ({ body }) =>
      theJob(db, createJob(db, body, now())),
    );
    app.get('/api/jobs/:id', { schema: { params: byId, ...ok(jobSchema) } }, ({ params }) => theJob(db, params.id));
    app.patch(
      '/api/jobs/:id',
      { schema: { params: byId, body: jobPatch, ...ok(jobSchema) } },
      ({ params: { id }, body: { was = {}, ...patch } }) => {
        inTransaction(db, () => {
          const before = theJob(db, id);
          if (Object.entries(was).some(([key, value]) => !isDeepStrictEqual(before[key as keyof JobPatch], value)))
            throw new AppError('changed-meanwhile', { what: 'The brief' });
          patchJob(db, id, patch);
          logChange(db, { subject: 'job', subjectId: id }, 'brief', before, patch, now());
        });
        events.emit({ type: 'job', jobId: id });
        return theJob(db, id);
      },
    );
  };
