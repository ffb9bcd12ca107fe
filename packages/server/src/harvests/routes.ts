import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import {
  harvestPatch,
  harvestStarted,
  harvestView as harvestSchema,
  newHarvest,
  robotsSay,
  webPage,
  webPageBody,
  webPageFetched,
  webPageLook,
} from '@sieve/contract';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import type { AppContext } from '../app-context';
import { AppError } from '../errors';
import { byId, ok } from '../http/schemas';
import { theJob } from '../jobs/the-job';
import { AskedToWait } from '../outside/web/asked-to-wait';
import { visitor } from '../outside/web/visit';
import { uploadId } from '../sources/routes';
import { SAYS_WHO } from '../sources/store';
import { uploadPath, uploadsDir } from '../sources/uploads';
import { changeHarvest, harvestAgain, startHarvest } from './commands';
import { harvestView, theHarvest } from './store';

/** How long somebody waits for a page. */
const PATIENCE_MS = 60_000;
/** A page that is shown runs nothing, loads nothing, and belongs to no one. */
const SHOWN = {
  'content-security-policy': "sandbox; default-src 'none'; style-src 'unsafe-inline'; frame-ancestors 'self'",
  'x-frame-options': 'SAMEORIGIN',
  'content-type': 'text/html; charset=utf-8',
  'cache-control': 'private, max-age=300',
};

/** Pages: fetched politely or uploaded, looked into, and harvested with the pages after them. */
export const harvestRoutes =
  (context: AppContext): FastifyPluginAsyncZod =>
  async (app) => {
    const { db, lookout, dataDir, newId, settings } = context;
    const pathOf = (upload: string) => uploadPath(dataDir, upload);

    app.post('/api/pages', { schema: { body: webPageBody, ...ok(webPageFetched) } }, async ({ body: { address } }) => {
      const web = visitor(settings().web);
      const visited = await waitedFor(address, (signal) => web.visit(address, signal));
      const id = newId();
      await writeFile(join(await uploadsDir(dataDir), id), visited.html);
      return { id, name: new URL(visited.address).host, address: visited.address };
    });
    app.post(
      '/api/pages/robots',
      { schema: { body: webPageBody, ...ok(robotsSay) } },
      async ({ body: { address } }) => {
        const web = visitor(settings().web);
        return (await waitedFor(address, (signal) => web.robots(address, signal)))(address);
      },
    );
    app.post(
      '/api/uploads/:upload/page',
      {
        schema: {
          params: uploadId,
          querystring: z.object({ name: z.string().max(300).default('') }),
          body: webPageLook,
          ...ok(webPage),
        },
      },
      ({ params, query, body: { address } }) =>
        lookout.look('page', { file: pathOf(params.upload), name: query.name || 'The page', address }),
    );
    app.get(
      '/api/uploads/:upload/preview',
      {
        schema: {
          params: uploadId,
          querystring: z.object({
            set: z.coerce.number().int().min(0).max(100).default(0),
            address: z.string().max(2000).default(''),
            next: z.string().max(2000).default(''),
          }),
        },
      },
      async ({ params, query: { set, address, next } }, reply) => {
        const html = await lookout.look(
          'preview',
          { file: pathOf(params.upload), name: 'The page', address },
          set,
          next,
        );
        return reply.headers(SHOWN).send(html);
      },
    );
    app.post(
      '/api/jobs/:id/harvests',
      { schema: { params: byId, body: newHarvest, ...ok(harvestStarted) } },
      ({ params, body }) => {
        theJob(db, params.id);
        pathOf(body.uploadId);
        if (!body.columns.some(({ target }) => SAYS_WHO.includes(target))) throw new AppError('nothing-mapped');
        return startHarvest(context, params.id, body);
      },
    );
    app.get('/api/harvests/:id', { schema: { params: byId, ...ok(harvestSchema) } }, ({ params }) =>
      harvestView(db, theHarvest(db, params.id)),
    );
    app.patch(
      '/api/harvests/:id',
      { schema: { params: byId, body: harvestPatch, ...ok(harvestSchema) } },
      ({ params, body }) => {
        const { id } = theHarvest(db, params.id);
        changeHarvest(context, id, body);
        return harvestView(db, theHarvest(db, id));
      },
    );
    app.post('/api/harvests/:id/again', { schema: { params: byId, ...ok(harvestStarted) } }, ({ params }) =>
      harvestAgain(context, params.id, 'you'),
    );
  };

/** What somebody waits for: a site that asks to wait, or takes too long, is told as one that does not answer now. */
async function waitedFor<T>(address: string, ask: (signal: AbortSignal) => Promise<T>): Promise<T> {
  const signal = AbortSignal.timeout(PATIENCE_MS);
  try {
    return await ask(signal);
  } catch (error) {
    if (error instanceof AskedToWait)
      throw new AppError('page-down', { address, reason: `it asks to wait ${Math.ceil(error.waitMs / 1000)} s` });
    throw signal.aborted ? new AppError('page-down', { address, reason: 'it took too long to answer' }) : error;
  }
}
