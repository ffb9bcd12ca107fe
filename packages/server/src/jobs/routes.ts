import { job as jobSchema, jobPatch, newJob } from '@sieve/contract';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import type { AppContext } from '../app-context';
import { logChange } from '../decisions/commands';
import { inTransaction } from '../db/open';
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
      ({ params: { id }, body }) => {
        inTransaction(db, () => {
          const before = theJob(db, id);
          patchJob(db, id, body);
          logChange(db, { subject: 'job', subjectId: id }, 'brief', before, body, now());
        });
        events.emit({ type: 'job', jobId: id });
        return theJob(db, id);
      },
    );
  };
