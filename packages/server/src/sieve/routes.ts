import {
  askEstimate,
  estimateQuery,
  companyPage as companyPageSchema,
  companyQuery,
  contactView as contactViewSchema,
  findQuery,
  firmEffect,
  lookupOrders as lookupOrdersSchema,
  lookupOrdersQuery,
  firmPage,
  firmPairs,
  firmQuery,
  firmView,
  foundThings,
  pairsView,
  personInFull as personInFullSchema,
  rowPage as rowPageSchema,
  rowQuery,
  started,
  screenEffect,
  startRun,
  verdictCounts,
  wordChanges,
  wordChangesBody,
  contactGroup,
  groupQuery,
  hitRate,
  nextValid,
} from '@sieve/contract';
import { companyOptions, screenOptions } from '@sieve/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import type { AppContext } from '../app-context';
import { AppError } from '../errors';
import { asCsvFile } from '../http/attachment';
import { byId, ok } from '../http/schemas';
import { theJob } from '../jobs/the-job';
import { pickListsNamed } from '../picks/store';
import { searchesNamed } from '../searches/store';
import { sourcesNamed } from '../sources/store';

const MOST_PAIRS = 25;
const MOST_FIRM_PAIRS = 200;
const MOST_FOUND = 12;
const MOST_NAMED = 6;
const MOST_VALUES = 12;

/** What sifting made of a job: its rows, pairs to judge, titles, companies; and asking for what it waits for. */
export const sieveRoutes =
  ({ db, queue, lookout, now }: AppContext): FastifyPluginAsyncZod =>
  async (app) => {
    app.get(
      '/api/jobs/:id/rows',
      { schema: { params: byId, querystring: rowQuery, ...ok(rowPageSchema) } },
      ({ params, query }) => lookout.look('rows', theJob(db, params.id).id, query),
    );
    app.get(
      '/api/jobs/:id/contacts/:contact',
      { schema: { params: byId.extend({ contact: z.coerce.number().int() }), ...ok(contactViewSchema) } },
      async ({ params }) => {
        const found = await lookout.look('contact', theJob(db, params.id).id, params.contact);
        if (!found) throw new AppError('not-found', { what: 'contact' });
        return found;
      },
    );
    app.get(
      '/api/jobs/:id/people/:contact',
      { schema: { params: byId.extend({ contact: z.coerce.number().int() }), ...ok(personInFullSchema) } },
      async ({ params }) => {
        const found = await lookout.look('person', theJob(db, params.id).id, params.contact);
        if (!found) throw new AppError('not-found', { what: 'contact' });
        return found;
      },
    );
    /** Every row as it came, with the verdict on its address, CSV as an export writes it. */
    app.get('/api/jobs/:id/verdicts', { schema: { params: byId } }, async ({ params }, reply) => {
      const { id, name } = theJob(db, params.id);
      return asCsvFile(reply, `${name} with verdicts`).send(await lookout.look('verdicts', id));
    });
    app.get('/api/jobs/:id/verdict-counts', { schema: { params: byId, ...ok(verdictCounts) } }, ({ params }) =>
      lookout.look('verdictCounts', theJob(db, params.id).id),
    );
    app.get('/api/jobs/:id/pairs', { schema: { params: byId, ...ok(pairsView) } }, ({ params }) =>
      lookout.look('pairs', theJob(db, params.id).id, MOST_PAIRS),
    );
    app.get(
      '/api/jobs/:id/groups',
      {
        schema: { params: byId, querystring: groupQuery, ...ok(z.array(contactGroup)) },
      },
      ({ params, query }) => lookout.look('groups', theJob(db, params.id).id, query),
    );
    app.get('/api/jobs/:id/hit-rates', { schema: { params: byId, ...ok(z.array(hitRate)) } }, ({ params }) =>
      lookout.look('hitRates', theJob(db, params.id).id, now()),
    );
    app.get('/api/jobs/:id/next-valid', { schema: { params: byId, ...ok(nextValid) } }, ({ params }) =>
      lookout.look('nextValid', theJob(db, params.id).id, now()),
    );
    app.post(
      '/api/jobs/:id/screen/effect',
      { schema: { params: byId, body: screenOptions, ...ok(screenEffect) } },
      ({ params, body }) => lookout.look('screenEffect', theJob(db, params.id).id, body, now()),
    );
    app.post('/api/words/changes', { schema: { body: wordChangesBody, ...ok(wordChanges) } }, ({ body }) =>
      lookout.look('wordChanges', body, MOST_VALUES),
    );
    app.get(
      '/api/jobs/:id/companies',
      { schema: { params: byId, querystring: companyQuery, ...ok(companyPageSchema) } },
      ({ params, query }) => lookout.look('companies', theJob(db, params.id).id, query),
    );
    app.get(
      '/api/jobs/:id/firms',
      { schema: { params: byId, querystring: firmQuery, ...ok(firmPage) } },
      ({ params, query }) => lookout.look('firms', theJob(db, params.id).id, query),
    );
    app.post(
      '/api/jobs/:id/firms/effect',
      {
        schema: { params: byId, querystring: firmQuery.pick({ step: true }), body: companyOptions, ...ok(firmEffect) },
      },
      ({ params, query, body }) => lookout.look('firmEffect', theJob(db, params.id).id, query.step, body),
    );
    app.get(
      '/api/lookup-orders',
      { schema: { querystring: lookupOrdersQuery, ...ok(lookupOrdersSchema) } },
      ({ query }) => lookout.look('lookupOrders', query.order.split(',').filter(Boolean), query.of),
    );
    app.get(
      '/api/jobs/:id/firm-pairs',
      { schema: { params: byId, querystring: firmQuery.pick({ step: true }), ...ok(firmPairs) } },
      ({ params, query }) => lookout.look('firmPairs', theJob(db, params.id).id, query.step, MOST_FIRM_PAIRS),
    );
    app.get(
      '/api/jobs/:id/firm',
      {
        schema: {
          params: byId,
          querystring: firmQuery.pick({ step: true }).extend({ key: z.string().min(1).max(300) }),
          ...ok(firmView),
        },
      },
      async ({ params, query }) => {
        const found = await lookout.look('firm', theJob(db, params.id).id, query.step, query.key);
        if (!found) throw new AppError('not-found', { what: 'company' });
        return found;
      },
    );
    app.get('/api/found', { schema: { querystring: findQuery, ...ok(foundThings) } }, async ({ query: { q } }) => ({
      contacts: await lookout.look('contacts', q, MOST_FOUND),
      searches: searchesNamed(db, q, MOST_NAMED),
      pickLists: pickListsNamed(db, q, MOST_NAMED),
      sources: sourcesNamed(db, q, MOST_NAMED),
    }));
    app.get(
      '/api/jobs/:id/estimate',
      { schema: { params: byId, querystring: estimateQuery, ...ok(askEstimate) } },
      ({ params, query: { of } }) =>
        lookout.look(of === 'phones' ? 'phoneEstimate' : 'estimate', theJob(db, params.id).id, now()),
    );
    app.post(
      '/api/jobs/:id/runs',
      { schema: { params: byId, body: startRun, ...ok(started) } },
      async ({ params, body: { step, most } }) => {
        const job = theJob(db, params.id);
        const waits = job.summary?.steps.find(({ id }) => id === step)?.waits ?? 0;
        if (waits === 0) throw new AppError('nothing-to-ask');
        const query = { step, fate: 'waits', q: '', sort: 'id', desc: false, limit: 1 } as const;
        const last = most && (await lookout.look('rows', job.id, { ...query, offset: most - 1 })).rows[0];
        return { runId: queue.enqueue(job.id, { kind: 'ask', step, ...(last && { upTo: last.id }) }) };
      },
    );
  };
