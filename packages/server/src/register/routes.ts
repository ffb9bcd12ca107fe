import { readSuppression, suppressionOf, tidier, type SuppressionEntry } from '@sieve/core';
import { newSuppressions, suppressed, suppressedFile, suppressionFile, suppressionRow } from '@sieve/contract';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import type { AppContext } from '../app-context';
import { inTransaction } from '../db/open';
import { addDecision } from '../decisions/store';
import { ok } from '../http/schemas';
import { siftAll } from '../runs/sift-all';
import { tableRows } from '../sources/table/read-table';
import { uploadPath } from '../sources/uploads';
import { setSuppressed, suppressionEntryOf, suppressionRows } from './suppressions';

const MOST_BYTES = 8 * 1024 * 1024;

/** Who must not be contacted. */
export const registerRoutes =
  ({ db, queue, now, dataDir, settings }: AppContext): FastifyPluginAsyncZod =>
  async (app) => {
    /** Changes the list, logs it and sifts every job anew. */
    function change(entries: readonly SuppressionEntry[], isIn: boolean): number {
      return inTransaction(db, () => {
        const done = setSuppressed(db, entries, isIn, now());
        const subject = { subject: 'settings' as const, subjectId: 0 };
        if (done.length > 0) addDecision(db, subject, 'you', { kind: 'suppress', entries: done, in: isIn }, now());
        if (done.length > 0) siftAll(db, queue);
        return done.length;
      });
    }
    app.get('/api/suppressions', { schema: ok(z.array(suppressionRow)) }, () => suppressionRows(db));
    app.post(
      '/api/suppressions',
      { schema: { body: newSuppressions, ...ok(suppressed) }, bodyLimit: MOST_BYTES },
      ({ body: { text, why, until } }) => {
        const { entries, refused } = readSuppression(text, '');
        const added = change(
          entries.map((entry) => ({ ...entry, why, until, source: '' })),
          true,
        );
        return { added, known: entries.length - added, refused };
      },
    );
    app.post(
      '/api/suppressions/file',
      { schema: { body: suppressionFile, ...ok(suppressedFile) } },
      async ({ body: { uploadId, name, format, columns, why, until } }) => {
        const tidy = tidier({ phoneCountry: '', lists: settings().lists });
        const entries: SuppressionEntry[] = [];
        let [place, nameless] = [0, 0];
        for await (const rows of tableRows(uploadPath(dataDir, uploadId), format, name))
          for (const { cells } of rows) {
            if (place++ <= format.headerRow || cells.every((cell) => cell.trim() === '')) continue;
            const named = suppressionOf(tidy(cells, columns).person);
            if (named.length === 0) nameless++;
            entries.push(...named.map((entry) => ({ ...entry, why, until, source: name })));
          }
        const added = change(entries, true);
        return { added, known: entries.length - added, nameless };
      },
    );
    app.delete(
      '/api/suppressions',
      { schema: { querystring: z.object({ key: z.string().min(1) }), ...ok(z.object({ removed: z.int() })) } },
      ({ query }) => {
        const entry = suppressionEntryOf(db, query.key);
        return { removed: entry ? change([entry], false) : 0 };
      },
    );
  };
