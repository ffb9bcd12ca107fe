import { createWriteStream } from 'node:fs';
import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import {
  ownField,
  bringIn,
  broughtIn,
  forgottenShape,
  inspectBody,
  inspection,
  knownShape,
  rowIssue,
  shapeColumns,
  sourceColumns,
  sourceRow,
  uploaded,
} from '@sieve/contract';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import type { AppContext } from '../app-context';
import { inTransaction } from '../db/open';
import { AppError } from '../errors';
import { asCsvFile } from '../http/attachment';
import { byId, ok } from '../http/schemas';
import { theJob } from '../jobs/the-job';
import { gapIn, gapTable } from './gap';
import { forgetMapping, knownShapes, rememberMapping } from './mappings';
import { decoderOf } from './table/read-table';
import { addSource, ownFieldsIn, SAYS_WHO, sourceById, sourceIssues } from './store';
import { unpack } from './unpack';
import { uploadPath, uploadsDir } from './uploads';

const MOST_BYTES = 1024 * 1024 * 1024;
export const uploadId = z.object({ upload: z.string().regex(/^[\w-]{8,40}$/) });
const named = z.object({ name: z.string().trim().min(1).max(300) });

/** Files: kept as they came, looked into, and brought into a job. */
export const sourceRoutes =
  ({ db, queue, events, lookout, dataDir, now, newId }: AppContext): FastifyPluginAsyncZod =>
  async (app) => {
    const uploadOf = (upload: string) => uploadPath(dataDir, upload);
    app.addContentTypeParser('application/octet-stream', (_request, payload, done) => done(null, payload));

    app.post(
      '/api/uploads',
      { schema: { querystring: named, ...ok(uploaded) }, bodyLimit: MOST_BYTES },
      async ({ body, query }) => {
        if (!body) throw new AppError('empty-file', { name: query.name });
        const id = newId();
        const dir = await uploadsDir(dataDir);
        const file = join(dir, id);
        try {
          await pipeline(body as NodeJS.ReadableStream, limitBytes(MOST_BYTES), createWriteStream(file));
        } catch (error) {
          await rm(file, { force: true });
          throw error;
        }
        const holds = await unpack(file, query.name, dir, newId).catch((error: unknown) => {
          // A damaged workbook says better what is wrong with it when it is read.
          if (/\.(xlsx|xlsm|ods)$/i.test(query.name)) return null;
          throw error;
        });
        return { id, name: query.name, holds: holds ?? [] };
      },
    );
    app.post(
      '/api/uploads/:upload/inspect',
      { schema: { params: uploadId, querystring: named, body: inspectBody, ...ok(inspection) } },
      ({ params, query, body }) =>
        lookout.look('file', {
          file: uploadOf(params.upload),
          name: query.name,
          said: body.format,
          mapped: body.columns,
          jobId: body.jobId,
          beginning: body.beginning,
        }),
    );
    app.post(
      '/api/jobs/:id/sources',
      {
        schema: {
          params: byId,
          querystring: z.object({ rows: z.coerce.number().int().min(0).default(0) }),
          body: bringIn,
          ...ok(broughtIn),
        },
      },
      ({ params, query, body: { format: origin, columns, name, uploadId: file, take } }) => {
        const { id: jobId } = theJob(db, params.id);
        if (!columns.some(({ target }) => SAYS_WHO.includes(target))) throw new AppError('nothing-mapped');
        if (origin.kind === 'table') decoderOf(origin.encoding);
        uploadOf(file);
        return inTransaction(db, () => {
          if (origin.headerRow >= 0 && gapIn(columns) === null) rememberMapping(db, columns, now());
          const sourceId = addSource(db, { jobId, name, origin, about: 'people', columns, file }, 'you', now());
          const runId = queue.enqueue(jobId, { kind: 'bring-in', sourceId, rows: query.rows, take });
          events.emit({ type: 'job', jobId });
          return { sourceId, runId };
        });
      },
    );
    app.get('/api/shapes', { schema: ok(z.array(knownShape)) }, () => knownShapes(db));
    app.post('/api/shapes', { schema: { body: shapeColumns, ...ok(z.array(knownShape)) } }, ({ body }) => {
      rememberMapping(db, body.columns, now());
      return knownShapes(db);
    });
    app.post('/api/shapes/forget', { schema: { body: forgottenShape, ...ok(z.array(knownShape)) } }, ({ body }) => {
      forgetMapping(db, body.shape);
      return knownShapes(db);
    });
    app.get('/api/jobs/:id/own-fields', { schema: { params: byId, ...ok(z.array(ownField)) } }, ({ params }) =>
      ownFieldsIn(db, theJob(db, params.id).id),
    );
    app.get('/api/jobs/:id/sources', { schema: { params: byId, ...ok(z.array(sourceRow)) } }, ({ params }) =>
      lookout.look('sources', theJob(db, params.id).id),
    );
    app.get(
      '/api/jobs/:id/sources/:source/issues',
      { schema: { params: byId.extend({ source: z.coerce.number().int() }), ...ok(z.array(rowIssue)) } },
      ({ params }) => (sourceById(db, params.source)?.jobId === params.id ? sourceIssues(db, params.source) : []),
    );
    app.get(
      '/api/jobs/:id/sources/:source/columns',
      { schema: { params: byId.extend({ source: z.coerce.number().int() }), ...ok(sourceColumns) } },
      async ({ params }) => {
        const found = await lookout.look('sourceColumns', params.id, params.source);
        if (!found) throw new AppError('not-found', { what: 'source' });
        return found;
      },
    );
    app.get(
      '/api/jobs/:id/sources/:source/gap',
      { schema: { params: byId.extend({ source: z.coerce.number().int() }) } },
      async ({ params }, reply) => {
        const source = sourceById(db, params.source);
        if (source?.jobId !== params.id || source.file === '') throw new AppError('not-found', { what: 'source' });
        return asCsvFile(reply, `to mend, ${source.name}`).send(await gapTable(db, source, dataDir));
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
