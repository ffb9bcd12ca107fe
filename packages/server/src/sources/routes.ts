import { createWriteStream } from 'node:fs';
import { mkdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { bringIn, inspectBody } from '@sieve/contract';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import type { AppContext } from '../app-context';
import { jobById } from '../jobs/store';
import { rememberMapping } from './mappings';
import { addSource } from './store';
import { AppError } from '../errors';

const MOST_BYTES = 1024 * 1024 * 1024;
const SAYS_WHO = ['fullName', 'firstName', 'lastName', 'email', 'phone', 'profile'];
const uploadId = z.object({ upload: z.string().regex(/^[\w-]{8,40}$/) });
const named = z.object({ name: z.string().trim().min(1).max(300) });

/** Files: kept as they came, looked into, and brought into a job. */
export const intakeRoutes =
  ({ db, queue, events, inspect, dataDir, now, newId }: AppContext): FastifyPluginAsyncZod =>
  async (app) => {
    const pathOf = (upload: string) => join(dataDir, 'uploads', upload);
    app.addContentTypeParser('application/octet-stream', (_request, payload, done) => done(null, payload));

    app.post('/api/uploads', { schema: { querystring: named }, bodyLimit: MOST_BYTES }, async ({ body, query }) => {
      const id = newId();
      await mkdir(join(dataDir, 'uploads'), { recursive: true });
      try {
        await pipeline(body as NodeJS.ReadableStream, limitBytes(MOST_BYTES), createWriteStream(pathOf(id)));
      } catch (error) {
        await rm(pathOf(id), { force: true });
        throw error;
      }
      return { id, name: query.name };
    });
    app.post(
      '/api/uploads/:upload/inspect',
      { schema: { params: uploadId, querystring: named, body: inspectBody } },
      ({ params, query, body }) => inspect(pathOf(params.upload), query.name, body.format, body.columns, body.jobId),
    );
    app.post(
      '/api/jobs/:id/sources',
      {
        schema: {
          params: z.object({ id: z.coerce.number().int() }),
          querystring: z.object({ rows: z.coerce.number().int().min(0).default(0) }),
          body: bringIn,
        },
      },
      ({ params, query, body }) => {
        const job = jobById(db, params.id);
        if (!job) throw new AppError('not-found', { what: 'job' });
        if (!body.columns.some(({ target }) => SAYS_WHO.includes(target))) throw new AppError('nothing-mapped');
        const { format, columns, name } = body;
        const source = db.transaction((tx) =>
          addSource(tx, { jobId: job.id, name, format, columns, file: body.uploadId }, now()),
        );
        if (format.headerRow >= 0) rememberMapping(db, columns, now());
        const runId = queue.enqueue(job.id, 'intake', { sourceId: source, rows: query.rows });
        events.emit({ type: 'job', jobId: job.id });
        return { sourceId: source, runId };
      },
    );
  };

function limitBytes(most: number): Transform {
  let total = 0;
  return new Transform({
    transform(chunk: Buffer, _encoding, done) {
      total += chunk.length;
      if (total > most) done(new AppError('too-large', { limit: '1 GB' }));
      else done(null, chunk);
    },
  });
}
