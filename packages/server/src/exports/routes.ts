import { createReadStream, existsSync } from 'node:fs';
import { stat } from 'node:fs/promises';
import { join } from 'node:path';
import archiver from 'archiver';
import { exportLayout, exportPreview, exportRun, exportStarted } from '@sieve/contract';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import type { AppContext } from '../app-context';
import { inTransaction } from '../db/open';
import { AppError } from '../errors';
import { byId, ok } from '../http/schemas';
import { theJob } from '../jobs/the-job';
import { addExport, doneExport, exportRuns } from './store';

/** Files that leave: what would go, what went, and the files again, free. */
export const exportRoutes =
  ({ db, queue, lookout, dataDir, now }: AppContext): FastifyPluginAsyncZod =>
  async (app) => {
    const exportOf = (id: number) => {
      const found = doneExport(db, id);
      if (!found) throw new AppError('not-found', { what: 'export' });
      return found;
    };

    const fileOf = (id: number, name: string) => {
      const file = join(dataDir, 'exports', String(id), name);
      if (!existsSync(file)) throw new AppError('not-found', { what: 'file' });
      return file;
    };

    app.post(
      '/api/jobs/:id/exports/preview',
      { schema: { params: byId, body: exportLayout, ...ok(exportPreview) } },
      ({ params, body }) => lookout.look('export', theJob(db, params.id).id, body, now()),
    );
    app.post(
      '/api/jobs/:id/exports',
      { schema: { params: byId, body: exportLayout, ...ok(exportStarted) } },
      async ({ params, body }) => {
        if (!(await lookout.look('anybodyGoes', theJob(db, params.id).id, body, now())))
          throw new AppError('nothing-to-export');
        return inTransaction(db, () => {
          const exportId = addExport(db, params.id, body, now());
          return { exportId, runId: queue.enqueue(params.id, { kind: 'export', exportId }) };
        });
      },
    );
    app.get('/api/jobs/:id/exports', { schema: { params: byId, ...ok(z.array(exportRun)) } }, ({ params }) =>
      exportRuns(db, params.id),
    );
    app.get(
      '/api/exports/:id/files/:name',
      { schema: { params: byId.extend({ name: z.string().max(200) }) } },
      async ({ params }, reply) => {
        const found = exportOf(params.id);
        const name = [...found.files.map((file) => file.name), 'manifest.json'].find((known) => known === params.name);
        if (!name) throw new AppError('not-found', { what: 'file' });
        const file = fileOf(params.id, name);
        const { size } = await stat(file);
        return reply
          .headers({ 'content-disposition': `attachment; filename="${name}"`, 'content-length': size })
          .type(typeOf(name))
          .send(createReadStream(file));
      },
    );
    app.get('/api/exports/:id/zip', { schema: { params: byId } }, ({ params }, reply) => {
      const found = exportOf(params.id);
      const names = [...found.files.map((file) => file.name), 'manifest.json'];
      const files = names.map((name) => ({ name, file: fileOf(params.id, name) }));
      const zip = archiver('zip');
      for (const { name, file } of files) zip.file(file, { name });
      zip.finalize().catch((error: Error) => zip.destroy(error));
      return reply
        .header('content-disposition', `attachment; filename="export-${params.id}.zip"`)
        .type('application/zip')
        .send(zip);
    });
  };

const typeOf = (name: string) =>
  name.endsWith('.csv')
    ? 'text/csv; charset=utf-8'
    : name.endsWith('.json')
      ? 'application/json'
      : 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';
