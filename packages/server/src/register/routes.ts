import { newSuppressions, suppressed, suppressionRow } from '@sieve/contract';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import type { AppContext } from '../app-context';
import { inTransaction } from '../db/open';
import { addDecision } from '../decisions/store';
import { ok } from '../http/schemas';
import { allJobs } from '../jobs/store';
import { readEntries, setSuppressed, suppressionEntry, suppressionRows, type SuppressionEntry } from './suppressions';

const MOST_BYTES = 8 * 1024 * 1024;

/** Who must not be contacted. */
export const registerRoutes =
  ({ db, queue, now }: AppContext): FastifyPluginAsyncZod =>
  async (app) => {
    /** Changes the list, logs it and sifts every job anew. */
    function change(entries: readonly SuppressionEntry[], isIn: boolean): number {
      return inTransaction(db, () => {
        const done = setSuppressed(db, entries, isIn, now());
        const subject = { subject: 'settings' as const, subjectId: 0 };
        if (done.length > 0) addDecision(db, subject, 'you', { kind: 'suppress', entries: done, in: isIn }, now());
        if (done.length > 0)
          for (const job of allJobs(db)) if (job.version > 0) queue.enqueue(job.id, { kind: 'sift' });
        return done.length;
      });
    }
    app.get('/api/suppressions', { schema: ok(z.array(suppressionRow)) }, () => suppressionRows(db));
    app.post(
      '/api/suppressions',
      { schema: { body: newSuppressions, ...ok(suppressed) }, bodyLimit: MOST_BYTES },
      ({ body }) => {
        const { entries, refused } = readEntries(body.text);
        return { added: change(entries, true), refused };
      },
    );
    app.delete(
      '/api/suppressions',
      { schema: { querystring: z.object({ value: z.string().min(1) }), ...ok(z.object({ removed: z.int() })) } },
      ({ query }) => {
        const entry = suppressionEntry(db, query.value);
        return { removed: entry ? change([entry], false) : 0 };
      },
    );
  };
