import { bouncesTold, newBounces, triedService as tried, tryService } from '@sieve/contract';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import type { AppContext } from '../app-context';
import { ok } from '../http/schemas';
import { siftAll } from '../runs/sift-all';
import { keepBounces } from './bounces';
import { triedService } from './try-service';

const MOST_BYTES = 8 * 1024 * 1024;

/** What the outside tells beside runs: mail that came back, and whether a service answers. */
export const outsideRoutes =
  ({ db, queue, now }: AppContext): FastifyPluginAsyncZod =>
  async (app) => {
    app.post(
      '/api/bounces',
      { schema: { body: newBounces, ...ok(bouncesTold) }, bodyLimit: MOST_BYTES },
      ({ body: { text } }) => {
        const told = keepBounces(db, text, now());
        if (told.invalid + told.full > 0) siftAll(db, queue);
        return told;
      },
    );
    app.post('/api/services/try', { schema: { body: tryService, ...ok(tried) } }, ({ body }) => triedService(body));
  };
