import { isHost, normaliseEmail } from '@sieve/core';
import { newSuppressions, settings as settingsSchema, type SuppressionRow } from '@sieve/contract';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import type { AppContext } from '../app-context';
import { allJobs } from '../jobs/store';
import { saveSettings } from './store';

/** Finders, mail, prices, and who must not be contacted. */
export const settingsRoutes =
  ({ db, queue, settings, now }: AppContext): FastifyPluginAsyncZod =>
  async (app) => {
    app.get('/api/settings', () => settings());
    app.put('/api/settings', { schema: { body: settingsSchema } }, ({ body }) => {
      saveSettings(db, body);
      return settings();
    });

    const resiftAll = () => {
      for (const job of allJobs(db)) if (job.summary) queue.enqueue(job.id, 'sift');
    };
    app.get(
      '/api/suppressions',
      (): SuppressionRow[] =>
        db.$client
          .prepare('SELECT value, kind, at FROM suppressions ORDER BY at DESC, value LIMIT 5000')
          .all() as SuppressionRow[],
    );
    app.post('/api/suppressions', { schema: { body: newSuppressions }, bodyLimit: 8 * 1024 * 1024 }, ({ body }) => {
      const entries = body.text.split(/[\s,;]+/).filter(Boolean);
      const refused: string[] = [];
      const add = db.$client.prepare('INSERT OR IGNORE INTO suppressions (value, kind, at) VALUES (?, ?, ?)');
      let added = 0;
      db.$client.transaction(() => {
        for (const entry of entries) {
          const email = normaliseEmail(entry);
          const domain = entry.toLowerCase().replace(/^@/, '');
          if (email) added += add.run(email, 'email', now()).changes;
          else if (isHost(domain)) added += add.run(domain, 'domain', now()).changes;
          else refused.push(entry.slice(0, 100));
        }
      })();
      resiftAll();
      return { added, refused };
    });
    app.delete(
      '/api/suppressions',
      { schema: { querystring: z.object({ value: z.string().min(1) }) } },
      ({ query }) => {
        const { changes } = db.$client.prepare('DELETE FROM suppressions WHERE value = ?').run(query.value);
        resiftAll();
        return { removed: changes };
      },
    );
    app.get('/api/spend', () =>
      db.$client
        .prepare(
          `SELECT date(at / 1000, 'unixepoch') AS day, sum(cents) AS cents, count(*) AS bought FROM charges WHERE at > ? GROUP BY day ORDER BY day`,
        )
        .all(now() - 31 * 24 * 3600 * 1000),
    );
  };
