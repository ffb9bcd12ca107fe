import {
  chargesQuery,
  ledgerQuery,
  ledgerView as ledgerSchema,
  left,
  newRefund,
  spendDay,
  zoneOf,
} from '@sieve/contract';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import type { AppContext } from '../app-context';
import { inTransaction } from '../db/open';
import { addDecision } from '../decisions/store';
import { AppError } from '../errors';
import { asCsvFile } from '../http/attachment';
import { byId, ok } from '../http/schemas';
import { theJob } from '../jobs/the-job';
import { budgetFor } from './budget';
import { refundable, setRefund, spendByDay } from './store';

const MONTH_MS = 31 * 24 * 3600 * 1000;

/** What was spent, on what and for whom. */
export const ledgerRoutes =
  ({ db, lookout, events, settings, now, newId }: AppContext): FastifyPluginAsyncZod =>
  async (app) => {
    app.get('/api/spend', { schema: { response: { 200: z.array(spendDay) } } }, () =>
      spendByDay(db, now() - MONTH_MS, zoneOf(settings())),
    );
    app.get('/api/ledger', { schema: { querystring: ledgerQuery, ...ok(ledgerSchema) } }, ({ query }) =>
      lookout.look('ledger', query),
    );
    app.get('/api/jobs/:id/left', { schema: { params: byId, ...ok(left) } }, ({ params }) =>
      budgetFor(db, theJob(db, params.id).id, settings())(now()),
    );
    app.get('/api/ledger/file', { schema: { querystring: chargesQuery } }, async ({ query }, reply) =>
      asCsvFile(reply, `Charges ${query.month}`).send(await lookout.look('charges', query)),
    );
    app.post(
      '/api/ledger/refunds',
      { schema: { body: newRefund, ...ok(z.object({ leftCents: z.int() })) } },
      ({ body }) =>
        inTransaction(db, () => {
          const charge = refundable(db, body.chargeId);
          if (!charge) throw new AppError('not-found', { what: 'charge' });
          const { leftCents, jobId } = charge;
          if (body.cents > leftCents) throw new AppError('refund-too-large', { cents: leftCents });
          const refund = { ...body, key: `refund ${newId()}` };
          setRefund(db, refund, true, now());
          addDecision(db, { subject: 'settings', subjectId: 0 }, 'you', { kind: 'refund', ...refund }, now());
          events.emit({ type: 'job', jobId });
          return { leftCents: leftCents - body.cents };
        }),
    );
  };
