import { settings as schema, type Settings } from '@sieve/contract';
import type { Db } from '../db/open';

/**
 * The settings that were saved, else the ones that the server was started with. Simulated services are where this start
 * put them, wherever they were when the settings were saved.
 */
export function readSettings(db: Db, shipped: Settings): Settings {
  const row = db.$client.prepare(`SELECT value FROM settings WHERE key = 'settings'`).pluck().get() as
    string | undefined;
  if (row === undefined) return shipped;
  const saved = schema.parse(JSON.parse(row));
  const simulated = (id: string) => shipped.finders.find((finder) => finder.id === id && finder.simulated);
  return {
    ...saved,
    finders: saved.finders.map((finder) =>
      finder.simulated ? { ...finder, url: simulated(finder.id)?.url ?? finder.url } : finder,
    ),
    ...(saved.directory?.simulated &&
      shipped.directory && { directory: { ...saved.directory, url: shipped.directory.url } }),
    ...(saved.mail.simulated && {
      nameServer: shipped.nameServer,
      mail: { ...saved.mail, port: shipped.mail.port },
    }),
  };
}

export const saveSettings = (db: Db, value: Settings): void => {
  db.$client.prepare(`INSERT OR REPLACE INTO settings (key, value) VALUES ('settings', ?)`).run(JSON.stringify(value));
};
