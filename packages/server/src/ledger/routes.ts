import { spendDay, zoneOf } from '@sieve/contract';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import type { AppContext } from '../app-context';
import { spendByDay } from './store';

const MONTH_MS = 31 * 24 * 3600 * 1000;

export const ledgerRoutes =
  ({ db, settings, now }: AppContext): FastifyPluginAsyncZod =>
  async (app) => {
    app.get('/api/spend', { schema: { response: { 200: z.array(spendDay) } } }, () =>
      spendByDay(db, now() - MONTH_MS, zoneOf(settings())),
    );
  };
