import { likeThese, screen, stepIn, withCondition, type Found } from '@sieve/core';
import {
  countBody,
  countView,
  likeBody,
  likeView,
  pageBody,
  pageView,
  sampleBody,
  sampleView,
  valuesBody,
  valuesView,
} from '@sieve/contract';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import type { AppContext } from '../app-context';
import { ok } from '../http/schemas';
import { jobById } from '../jobs/store';
import { capOf } from '../outside/directory/port';
import { heldRows } from '../register/held-rows';
import { patience } from './patience';
import { drawSample } from './sample';

/** Conditions looked for among examples. */
const MOST_LIKES = 16;

/** Questions to the directory that leave nothing behind: counts, samples, pages, what examples share. */
export const directoryRoutes =
  ({ db, directory, settings }: AppContext): FastifyPluginAsyncZod =>
  async (app) => {
    app.post('/api/directory/count', { schema: { body: countBody, ...ok(countView) } }, async ({ body }) => ({
      count: await directory().count(body.search, patience()),
      cap: capOf(directory(), body.search.about),
    }));
    app.post('/api/directory/values', { schema: { body: valuesBody, ...ok(valuesView) } }, async ({ body }) => {
      const counted = await directory().facet(body.search, body.field, patience());
      return counted && [...counted].map(([value, count]) => ({ value, count })).sort((a, b) => b.count - a.count);
    });
    app.post('/api/directory/sample', { schema: { body: sampleBody, ...ok(sampleView) } }, ({ body }) => {
      const sieve = body.jobId === null ? undefined : jobById(db, body.jobId)?.sieve;
      const brief = sieve && body.search.about === 'people' ? stepIn(sieve, screen).options : null;
      return drawSample(directory(), body.search, body.size, brief, settings().lists, Math.random, patience());
    });
    app.post('/api/directory/page', { schema: { body: pageBody, ...ok(pageView) } }, async ({ body }) => {
      const { total, pages, rows } = await directory().page(body.search, body.page, patience());
      const held = heldRows(db, rows);
      return { total, pages, rows: rows.map((row) => ({ ...row, held: held.has(row.id) })) };
    });
    app.post('/api/directory/like', { schema: { body: likeBody, ...ok(z.array(likeView)) } }, async ({ body }) => {
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
