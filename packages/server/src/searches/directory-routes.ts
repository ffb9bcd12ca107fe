import { likeThese, withCondition, type Found } from '@sieve/core';
import {
  countBody,
  likeBody,
  pageBody,
  sampleBody,
  type CountView,
  type LikeView,
  type PageView,
} from '@sieve/contract';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import type { AppContext } from '../app-context';
import { effectiveSteps, jobRow, standingDecisions } from '../jobs/store';
import { heldRows } from './store';
import { capOf } from '../outside/directory/port';
import { patience } from './patience';
import { drawSample } from './sample';

/** Conditions looked for among examples. */
const MOST_LIKES = 16;

/** Questions to the directory that leave nothing behind: counts, samples, pages, what examples share. */
export const directoryRoutes =
  ({ db, directory }: AppContext): FastifyPluginAsyncZod =>
  async (app) => {
    app.post('/api/directory/count', { schema: { body: countBody } }, async ({ body }): Promise<CountView> => ({
      count: await directory().count(body.search, patience()),
      cap: capOf(directory(), body.search.about),
    }));
    app.post('/api/directory/sample', { schema: { body: sampleBody } }, ({ body }) => {
      const job = body.jobId === null ? undefined : jobRow(db, body.jobId);
      const brief = job ? effectiveSteps(job.steps, standingDecisions(db, job.id)).screen.briefTitles : [];
      const titles = body.search.about === 'people' ? brief : [];
      return drawSample(directory(), body.search, body.size, titles, Math.random, patience());
    });
    app.post('/api/directory/page', { schema: { body: pageBody } }, async ({ body }): Promise<PageView> => {
      const { total, pages, rows } = await directory().page(body.search, body.page, patience());
      const held = heldRows(
        db,
        rows.map(({ id }) => id),
      );
      return { total, pages, rows: rows.map((row) => ({ ...row, held: held.has(row.id) })) };
    });
    app.post('/api/directory/like', { schema: { body: likeBody } }, async ({ body }): Promise<LikeView[]> => {
      const signal = patience();
      const likes = likeThese(body.about, body.rows as Found[]).slice(0, MOST_LIKES);
      return Promise.all(
        likes.map(async ({ condition, shared }) => ({
          condition,
          shared,
          of: body.rows.length,
          count: await directory().count(withCondition({ about: body.about, conditions: [] }, condition), signal),
        })),
      );
    });
  };
