import {
  askEstimate,
  companyPage as companyPageSchema,
  companyQuery,
  contactView as contactViewSchema,
  findQuery,
  foundThings,
  pairsView,
  personInFull as personInFullSchema,
  rowPage as rowPageSchema,
  rowQuery,
  started,
  startRun,
  titleGroup,
} from '@sieve/contract';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import type { AppContext } from '../app-context';
import { AppError } from '../errors';
import { byId, ok } from '../http/schemas';
import { theJob } from '../jobs/the-job';
import { pickListsNamed } from '../picks/store';
import { searchesNamed } from '../searches/store';
import { sourcesNamed } from '../sources/store';
import { personInFull } from './person';
import { estimateFor } from './estimate';
import { companyPage, contactView, findContacts, pairsToJudge, rowPage, titleGroups } from './rows';

const MOST_PAIRS = 100;
const MOST_FOUND = 12;
const MOST_NAMED = 6;

/** What sifting made of a job: its rows, pairs to judge, titles, companies; and asking for what it waits for. */
export const sieveRoutes =
  ({ db, queue, settings }: AppContext): FastifyPluginAsyncZod =>
  async (app) => {
    app.get(
      '/api/jobs/:id/rows',
      { schema: { params: byId, querystring: rowQuery, ...ok(rowPageSchema) } },
      ({ params, query }) => rowPage(db, theJob(db, params.id).id, query),
    );
    app.get(
      '/api/jobs/:id/contacts/:contact',
      { schema: { params: byId.extend({ contact: z.coerce.number().int() }), ...ok(contactViewSchema) } },
      ({ params }) => {
        const found = contactView(db, theJob(db, params.id).id, params.contact, settings().lists);
        if (!found) throw new AppError('not-found', { what: 'contact' });
        return found;
      },
    );
    app.get(
      '/api/jobs/:id/people/:contact',
      { schema: { params: byId.extend({ contact: z.coerce.number().int() }), ...ok(personInFullSchema) } },
      ({ params }) => {
        const found = personInFull(db, theJob(db, params.id).id, params.contact, settings());
        if (!found) throw new AppError('not-found', { what: 'contact' });
        return found;
      },
    );
    app.get('/api/jobs/:id/pairs', { schema: { params: byId, ...ok(pairsView) } }, ({ params }) =>
      pairsToJudge(db, theJob(db, params.id).id, MOST_PAIRS, settings().lists),
    );
    app.get(
      '/api/jobs/:id/titles',
      {
        schema: { params: byId, querystring: z.object({ step: z.string().max(60) }), ...ok(z.array(titleGroup)) },
      },
      ({ params, query }) => titleGroups(db, theJob(db, params.id).id, query.step),
    );
    app.get(
      '/api/jobs/:id/companies',
      { schema: { params: byId, querystring: companyQuery, ...ok(companyPageSchema) } },
      ({ params, query }) => companyPage(db, theJob(db, params.id).id, query),
    );
    app.get('/api/found', { schema: { querystring: findQuery, ...ok(foundThings) } }, ({ query: { q } }) => ({
      contacts: findContacts(db, q, MOST_FOUND),
      searches: searchesNamed(db, q, MOST_NAMED),
      pickLists: pickListsNamed(db, q, MOST_NAMED),
      sources: sourcesNamed(db, q, MOST_NAMED),
    }));
    app.get('/api/jobs/:id/estimate', { schema: { params: byId, ...ok(askEstimate) } }, ({ params }) =>
      estimateFor(db, params.id, settings()),
    );
    app.post(
      '/api/jobs/:id/runs',
      { schema: { params: byId, body: startRun, ...ok(started) } },
      ({ params, body: { step } }) => {
        const job = theJob(db, params.id);
        const waits = job.summary?.steps.find(({ id }) => id === step)?.waits ?? 0;
        if (waits === 0) throw new AppError('nothing-to-ask');
        return { runId: queue.enqueue(job.id, { kind: 'ask', step }) };
      },
    );
  };
