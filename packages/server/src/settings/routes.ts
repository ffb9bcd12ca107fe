import { settingsView as settingsViewSchema } from '@sieve/contract';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import type { AppContext } from '../app-context';
import { inTransaction } from '../db/open';
import { logChange } from '../decisions/commands';
import { ok } from '../http/schemas';
import { siftAll } from '../runs/sift-all';
import { saveSettings, settingsView, withoutKeys } from './store';

/** Services, prices, pace and word lists. */
export const settingsRoutes =
  ({ db, queue, settings, now }: AppContext): FastifyPluginAsyncZod =>
  async (app) => {
    app.get('/api/settings', { schema: ok(settingsViewSchema) }, () => settingsView(db, settings()));
    app.put('/api/settings', { schema: { body: settingsViewSchema, ...ok(settingsViewSchema) } }, ({ body }) => {
      const before = settings();
      inTransaction(db, () => {
        saveSettings(db, body.settings, body.version);
        const subject = { subject: 'settings' as const, subjectId: 0 };
        logChange(db, subject, 'settings', withoutKeys(before), withoutKeys(body.settings), now());
        if (JSON.stringify(before.lists) !== JSON.stringify(body.settings.lists)) siftAll(db, queue);
      });
      return settingsView(db, settings());
    });
  };
