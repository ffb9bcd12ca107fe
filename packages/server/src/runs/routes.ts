import { run, runAction } from '@sieve/contract';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import type { AppContext } from '../app-context';
import { byId, ok } from '../http/schemas';

/** Background work. */
export const runRoutes =
  ({ queue }: AppContext): FastifyPluginAsyncZod =>
  async (app) => {
    app.get('/api/runs', { schema: ok(z.array(run)) }, () => queue.recent());
    app.post('/api/runs/:id', { schema: { params: byId, body: runAction, ...ok(run) } }, ({ params, body }) =>
      queue.act(params.id, body.action),
    );
  };
