import { run, runAction } from '@sieve/contract';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import type { AppContext } from '../app-context';
import { byId, ok } from '../http/schemas';
import { seeFailed } from './store';

/** Background work. */
export const runRoutes =
  ({ db, queue, now }: AppContext): FastifyPluginAsyncZod =>
  async (app) => {
    app.get('/api/runs', { schema: ok(z.array(run)) }, () => queue.listed());
    app.post('/api/runs/seen', { schema: ok(z.array(run)) }, () => {
      seeFailed(db, now());
      return queue.listed();
    });
    app.post('/api/runs/:id', { schema: { params: byId, body: runAction, ...ok(run) } }, ({ params, body }) =>
      queue.act(params.id, body.action),
    );
  };
