import { doneAt, joinBatches, splitHere } from '@sieve/core';
import {
  earlierBatches as earlierBatchesSchema,
  newSearch,
  pullBody,
  pullForecast,
  pullsStarted,
  searchBatchesBody,
  searchPatch,
  searchRow as searchRowSchema,
  searchView as searchViewSchema,
  zoneOf,
  type PullForecast,
} from '@sieve/contract';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import type { AppContext } from '../app-context';
import { inTransaction } from '../db/open';
import { AppError } from '../errors';
import { byId, ok } from '../http/schemas';
import { theJob } from '../jobs/the-job';
import { liveSplit } from '../runs/store';
import { changeSearch, patchSearch } from './commands';
import { earlierBatches, restoreBatches } from './earlier';
import { patience } from './patience';
import { counting, useBatches } from './split-search';
import { askAgain, endOfPulls } from './standing';
import { startPulls } from './start-pulls';
import { addSearch, allSearches, batchesOf, searchView, theSearch } from './store';

const asView = ok(searchViewSchema);
const MOST_BYTES = 8 * 1024 * 1024;

/** Saved searches: split, pulled, standing. */
export const searchRoutes =
  (context: AppContext): FastifyPluginAsyncZod =>
  async (app) => {
    const { db, events, queue, lookout, settings, directory, now } = context;
    const view = (id: number) => {
      events.emit({ type: 'search', searchId: id });
      return searchView(db, id)!;
    };

    app.get('/api/searches', { schema: ok(z.array(searchRowSchema)) }, () => allSearches(db));
    app.post('/api/searches', { schema: { body: newSearch, ...asView } }, ({ body }) =>
      view(addSearch(db, body, now())),
    );
    app.get('/api/searches/:id', { schema: { params: byId, ...asView } }, ({ params }) =>
      searchView(db, theSearch(db, params.id).id)!,
    );
    app.patch('/api/searches/:id', { schema: { params: byId, body: searchPatch, ...asView } }, ({ params, body }) => {
      patchSearch(db, params.id, body, now());
      return view(params.id);
    });

    /** Starts a run, or finds the one that goes on; `splitting` names it until the batches are there. */
    app.post('/api/searches/:id/split', { schema: { params: byId, ...asView } }, ({ params }) => {
      const { id, jobId, version } = theSearch(db, params.id);
      directory();
      if (liveSplit(db, id) === null) queue.enqueue(jobId ?? 0, { kind: 'split', searchId: id, version });
      return view(id);
    });
    app.get(
      '/api/searches/:id/earlier',
      { schema: { params: byId, ...ok(z.array(earlierBatchesSchema)) } },
      ({ params }) => earlierBatches(db, theSearch(db, params.id).id),
    );
    app.post(
      '/api/searches/:id/restore',
      { schema: { params: byId, body: z.object({ decision: z.int().positive() }), ...asView } },
      ({ params, body }) => {
        restoreBatches(db, params.id, body.decision, now());
        return view(params.id);
      },
    );
    app.put(
      '/api/searches/:id/batches',
      { schema: { params: byId, body: searchBatchesBody, ...asView }, bodyLimit: MOST_BYTES },
      async ({ params, body }) => {
        await useBatches(context, params.id, body.batches, theSearch(db, params.id).version);
        return view(params.id);
      },
    );
    app.post(
      '/api/searches/:id/batches/split',
      { schema: { params: byId, body: z.object({ position: z.int().min(0), field: z.string().max(40) }), ...asView } },
      async ({ params, body }) => {
        const { id, version } = theSearch(db, params.id);
        const all = batchesOf(db, id);
        const batch = all[body.position];
        if (!batch) throw new AppError('not-found', { what: 'batch' });
        const parts = await splitHere(batch.search, body.field, counting(directory(), patience()));
        if (parts.length === 0) throw new AppError('cannot-split');
        const { kept } = batch;
        await useBatches(
          context,
          id,
          all.flatMap((one) => (one === batch ? parts.map(({ search }) => ({ search, kept })) : [one])),
          version,
        );
        return view(id);
      },
    );
    app.post(
      '/api/searches/:id/batches/join',
      { schema: { params: byId, body: z.object({ a: z.int().min(0), b: z.int().min(0) }), ...asView } },
      async ({ params, body }) => {
        const { id, version } = theSearch(db, params.id);
        const all = batchesOf(db, id);
        const [a, b] = [all[body.a], all[body.b]];
        if (!a || !b || a === b) throw new AppError('not-found', { what: 'batch' });
        const search = joinBatches(a.search, b.search);
        if (!search) throw new AppError('cannot-join');
        const { kept } = a;
        await useBatches(
          context,
          id,
          all.flatMap((one) => (one === a ? [{ search, kept }] : one === b ? [] : [one])),
          version,
        );
        return view(id);
      },
    );

    /** Time that pulling some rows takes at the pace of the settings. */
    const forecast = (rows: number): Omit<PullForecast, 'asking'> => {
      const { pace, directory: set } = settings();
      const { pageSize } = directory();
      const pagesPerSecond = set!.perSecond;
      const msPerRow = 1000 / pagesPerSecond / pageSize;
      return {
        rows,
        minutes: (rows * msPerRow) / 60_000,
        doneAt: Math.round(doneAt({ ...pace, zone: zoneOf(settings()) }, rows, msPerRow, now())),
        rowsADay: pace.rowsADay,
        pageSize,
        pagesPerSecond,
      };
    };
    app.post(
      '/api/searches/:id/forecast',
      { schema: { params: byId, body: pullBody, ...ok(pullForecast) } },
      async ({ params, body: { batchIds, first, jobId } }) => {
        const wanted = batchesOf(db, theSearch(db, params.id).id).filter(({ id }) => batchIds.includes(id));
        const rows = wanted.reduce((sum, { count }) => sum + (first > 0 ? Math.min(first, count) : count), 0);
        return { ...forecast(rows), asking: await lookout.look('estimate', theJob(db, jobId).id, now(), rows) };
      },
    );
    app.post(
      '/api/searches/:id/pulls',
      { schema: { params: byId, body: pullBody, ...ok(pullsStarted) } },
      ({ params, body }) => {
        const { id } = theSearch(db, params.id);
        theJob(db, body.jobId);
        return inTransaction(db, () => {
          changeSearch(db, id, { jobId: body.jobId }, now());
          return { runIds: startPulls(context, id, body.jobId, body.batchIds, 'you', body.first) };
        });
      },
    );
    /** Asks a standing search now, whatever its schedule. */
    app.post('/api/searches/:id/ask-now', { schema: { params: byId, ...ok(pullsStarted) } }, async ({ params }) => {
      const found = theSearch(db, params.id);
      if (found.jobId === null) throw new AppError('not-found', { what: 'job for this search' });
      if (endOfPulls(db, found.id) === null) throw new AppError('not-running', { state: 'still going' });
      return { runIds: await askAgain(context, found.id, patience()) };
    });
  };
