import { checkBatches, doneAt, joinBatches, splitHere, type BatchCheck, type Search } from '@sieve/core';
import { batchesBody, newSearch, pullBody, searchPatch, type PullForecast, type SplitView } from '@sieve/contract';
import { eq } from 'drizzle-orm';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import type { AppContext } from '../app-context';
import { jobById } from '../jobs/store';
import { allSearches, batchesOf, replaceBatches, searchRow, searchView } from './store';
import { searches } from '../db/schema';
import { AppError, toAppError } from '../errors';
import { capOf } from '../outside/directory/port';
import { patience } from './patience';
import { counting, splitSearch } from './split-search';
import { askAgain, endOfPulls, stand, startDueSearches } from './standing';
import { startPulls } from './start-pulls';

const byId = z.object({ id: z.coerce.number().int().positive() });

/** Saved searches: split, pulled, standing. */
export const searchRoutes =
  (context: AppContext): FastifyPluginAsyncZod =>
  async (app) => {
    const { db, events, settings, directory, now } = context;
    const known = (id: number) => {
      const found = searchRow(db, id);
      if (!found) throw new AppError('not-found', { what: 'search' });
      return found;
    };
    const view = (id: number) => {
      events.emit({ type: 'search', searchId: id });
      return searchView(db, id)!;
    };

    app.get('/api/searches', () => allSearches(db));
    app.post('/api/searches', { schema: { body: newSearch } }, ({ body }) => {
      const { id } = db
        .insert(searches)
        .values({ ...body, createdAt: now() })
        .returning({ id: searches.id })
        .get();
      return view(id);
    });
    app.get('/api/searches/:id', { schema: { params: byId } }, ({ params }) => searchView(db, known(params.id).id)!);
    app.patch('/api/searches/:id', { schema: { params: byId, body: searchPatch } }, ({ params, body }) => {
      const before = known(params.id);
      const other = body.search && JSON.stringify(body.search) !== JSON.stringify(before.search);
      if (other) replaceBatches(db, params.id, []);
      const changes = {
        ...body,
        ...(other && { split: null }),
        ...(body.standing !== undefined && stand(db, params.id, body.standing, now())),
      };
      if (Object.keys(changes).length > 0) db.update(searches).set(changes).where(eq(searches.id, params.id)).run();
      return view(params.id);
    });

    app.post('/api/searches/:id/split', { schema: { params: byId } }, async ({ params }) => {
      await splitSearch(context, known(params.id).id);
      return view(params.id);
    });
    app.put(
      '/api/searches/:id/batches',
      { schema: { params: byId, body: batchesBody }, bodyLimit: 8 * 1024 * 1024 },
      ({ params, body }) => useBatches(params.id, body.batches),
    );
    app.post(
      '/api/searches/:id/batches/split',
      { schema: { params: byId, body: z.object({ position: z.int().min(0), field: z.string().max(40) }) } },
      async ({ params, body }) => {
        const all = batchesOf(db, known(params.id).id);
        const batch = all[body.position];
        if (!batch) throw new AppError('not-found', { what: 'batch' });
        const parts = await splitHere(batch.search, body.field, counting(directory(), patience()));
        if (parts.length === 0) throw new AppError('cannot-split');
        return useBatches(
          params.id,
          all.flatMap((one) => (one === batch ? parts.map(({ search }) => ({ search, kept: batch.kept })) : [one])),
        );
      },
    );
    app.post(
      '/api/searches/:id/batches/join',
      { schema: { params: byId, body: z.object({ a: z.int().min(0), b: z.int().min(0) }) } },
      async ({ params, body }) => {
        const all = batchesOf(db, known(params.id).id);
        const [a, b] = [all[body.a], all[body.b]];
        if (!a || !b || a === b) throw new AppError('not-found', { what: 'batch' });
        const both = joinBatches(a.search, b.search);
        if (!both) throw new AppError('cannot-join');
        return useBatches(
          params.id,
          all.flatMap((one) => (one === a ? [{ search: both, kept: a.kept }] : one === b ? [] : [one])),
        );
      },
    );

    /** Puts batches made by hand in place of the others, counted, with what is missing and what is there twice. */
    async function useBatches(id: number, parts: readonly { search: Search; kept: Record<string, string> }[]) {
      const { search } = known(id);
      const cap = capOf(directory(), search.about);
      const check = await checkBatches(
        search,
        parts.map((part) => part.search),
        counting(directory(), patience()),
      );
      const counted = parts.map(({ search: part, kept }, i) => ({ search: part, kept, count: check.counts[i]! }));
      replaceBatches(db, id, counted);
      db.update(searches)
        .set({ split: handMade(search, counted, check, cap) })
        .where(eq(searches.id, id))
        .run();
      return view(id);
    }

    /** Time that pulling some rows takes at the pace of the settings. */
    const forecast = (rows: number): PullForecast => {
      const { pace, directory: set } = settings();
      const msPerRow = 1000 / (set?.perSecond ?? 1) / 25 + 4;
      return {
        rows,
        minutes: (rows * msPerRow) / 60_000,
        doneAt: doneAt(pace, rows, msPerRow, now()),
        rowsADay: pace.rowsADay,
      };
    };
    app.post('/api/searches/:id/forecast', { schema: { params: byId, body: pullBody } }, ({ params, body }) => {
      const wanted = batchesOf(db, known(params.id).id).filter(({ id }) => body.batchIds.includes(id));
      return forecast(wanted.reduce((sum, { count }) => sum + count, 0));
    });
    app.post('/api/searches/:id/pulls', { schema: { params: byId, body: pullBody } }, ({ params, body }) => {
      const { id } = known(params.id);
      if (!jobById(db, body.jobId)) throw new AppError('not-found', { what: 'job' });
      db.update(searches).set({ jobId: body.jobId }).where(eq(searches.id, id)).run();
      return { runIds: startPulls(context, id, body.jobId, body.batchIds, false) };
    });
    /** Asks a standing search now, whatever its schedule. */
    app.post('/api/searches/:id/ask-now', { schema: { params: byId } }, async ({ params }) => {
      const found = known(params.id);
      if (found.jobId === null) throw new AppError('not-found', { what: 'job for this search' });
      if (endOfPulls(db, found.id) === null) throw new AppError('not-running', { state: 'still going' });
      return { runIds: await askAgain(context, found.id) };
    });

    const askDue = () =>
      void startDueSearches(context).catch((error: unknown) => app.log.error(toAppError(error), 'standing searches'));
    const timer = setInterval(askDue, 30_000).unref();
    app.addHook('onReady', async () => askDue());
    app.addHook('onClose', async () => clearInterval(timer));
  };

function handMade(
  whole: Search,
  parts: readonly { search: Search; count: number }[],
  { total, missing, twice }: BatchCheck,
  cap: number,
): SplitView {
  const own = new Set(whole.conditions.map((given) => JSON.stringify(given)));
  return {
    top: {
      by: null,
      count: total,
      batch: null,
      parts: parts.map(({ search, count }, batch) => ({
        by: search.conditions.find((given) => !own.has(JSON.stringify(given))) ?? null,
        count,
        batch,
        parts: [],
      })),
    },
    count: total,
    fewest: Math.max(1, Math.ceil(total / cap)),
    outOfReach: parts.reduce((sum, { count }) => sum + Math.max(0, count - cap), 0),
    questions: parts.length + 1,
    missing,
    twice,
    byHand: true,
  };
}
